import { inject, Injectable, signal } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Reference } from '@zinc/contract';
import { Api, messageOf } from '../shared/api';
import { references } from './shelf.store';

export interface Arriving {
  name: string;
  share: number;
  problem: string | null;
}

const AT_ONCE = 2;

/** Pictures on their way to the shelf: they go on arriving while the person works elsewhere. */
@Injectable({ providedIn: 'root' })
export class Arrivals {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  readonly all = signal<Arriving[]>([]);

  /** Fetches a picture from a public web address; the server does it, so that no other site sees who looks. True when it came. */
  async fetchAddress(url: string): Promise<boolean> {
    const row: Arriving = { name: url, share: 1, problem: null };
    this.all.update(now => [...now.filter(a => a.problem && a.name !== url), row]);
    const gone = (): void => this.all.update(now => now.filter(a => a.name !== url));
    try {
      const saved = await this.api.send<Reference>('POST', '/references/from-address', { url });
      this.store.dispatch(references.actions.saved({ items: [saved] }));
      gone();
      return true;
    } catch (error) {
      gone();
      this.all.update(now => [...now, { ...row, problem: messageOf(error) }]);
      return false;
    }
  }

  /** Sends files one by one, two at a time: one that is refused never keeps the others from arriving. */
  async bring(files: File[]): Promise<void> {
    if (files.length === 0) return;
    const rows: Arriving[] = files.map(f => ({ name: f.name, share: 0, problem: null }));
    this.all.update(now => [...now.filter(a => a.problem), ...rows]);
    const set = (row: Arriving, change: Partial<Arriving>): void => {
      this.all.update(now => now.map(a => (a === row || a.name === row.name ? { ...a, ...change } : a)));
    };
    const waiting = files.map((file, i) => ({ file, row: rows[i] }));
    const work = async (): Promise<void> => {
      for (let next = waiting.shift(); next; next = waiting.shift()) {
        const { file, row } = next;
        try {
          const saved = await this.api.upload<Reference>('/references', file, share => set(row, { share }));
          this.store.dispatch(references.actions.saved({ items: [saved] }));
          this.all.update(now => now.filter(a => a.name !== row.name));
        } catch (error) {
          set(row, { problem: messageOf(error) });
        }
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, work));
  }

  dismiss(a: Arriving): void {
    this.all.update(now => now.filter(x => x !== a));
  }
}
