import { signal } from '@angular/core';
import MiniSearch from 'minisearch';

interface Entry {
  id: string;
  text: string;
}

/** Added at a time, so that no single piece of work holds up the page. */
const CHUNK = 250;

/** Letters as people type them: capitals and accents make no difference. */
const plain = (term: string): string => term.toLowerCase().normalize('NFD').replace(/\p{M}/gu, '');

/** Finds things by the beginnings of words, and by words with a letter wrong or missing. */
export class WordIndex {
  private readonly search = new MiniSearch<Entry>({
    fields: ['text'],
    processTerm: plain,
  });
  private readonly known = new Map<string, string>();
  /** Goes up whenever there is more to find. */
  readonly changes = signal(0);
  private work = Promise.resolve();

  /** Makes the index hold exactly these things. */
  keep(entries: readonly Entry[]): Promise<void> {
    return (this.work = this.work.then(() => this.catchUp(entries)));
  }

  private async catchUp(entries: readonly Entry[]): Promise<void> {
    const wanted = new Set(entries.map(e => e.id));
    for (const id of [...this.known.keys()])
      if (!wanted.has(id)) {
        this.search.discard(id);
        this.known.delete(id);
      }
    const fresh: Entry[] = [];
    for (const e of entries) {
      const before = this.known.get(e.id);
      if (before === e.text) continue;
      if (before !== undefined) this.search.replace(e);
      else fresh.push(e);
      this.known.set(e.id, e.text);
    }
    await this.search.addAllAsync(fresh, { chunkSize: CHUNK });
    this.changes.update(n => n + 1);
  }

  /** The ids of what fits all the words; null when no words are asked for. A word that nothing begins with is taken for mistyped. */
  find(words: string): ReadonlySet<string> | null {
    const terms = words.split(/[\s\p{P}]+/u).filter(Boolean);
    if (terms.length === 0) return null;
    const fitting = terms.map(term => {
      const exact = this.idsOf(term, false);
      return exact.size > 0 ? exact : this.idsOf(term, true);
    });
    const [first, ...rest] = fitting;
    return new Set([...first].filter(id => rest.every(set => set.has(id))));
  }

  private idsOf(term: string, mistyped: boolean): Set<string> {
    const fuzzy = mistyped ? (term.length > 5 ? 2 : term.length > 2 ? 1 : false) : false;
    return new Set(this.search.search(term, { prefix: true, fuzzy, processTerm: plain }).map(r => String(r.id)));
  }
}
