import { computed, inject, Injectable, signal } from '@angular/core';
import type { DecisionInput } from '@zinc/contract';
import { Api, ApiError, problemOf } from '../shared/api';
import { Messages } from '../shared/messages';

const STORED = 'zinc.decisions';
const TRY_AGAIN_MS = 3000;

interface Waiting {
  personId: string;
  body: DecisionInput;
}

/** What waits in this browser; nothing when it cannot be read. */
function stored(): Waiting[] {
  try {
    const list: unknown = JSON.parse(localStorage.getItem(STORED) ?? '[]');
    return Array.isArray(list) ? (list as Waiting[]) : [];
  } catch {
    return [];
  }
}

/**
 * Decisions on their way to the server: one after the other, in the order they were made, each once. Without a connection they wait, here and
 * over a reload, and go when it is back. A decision carries an id of its own, so one that arrived though its answer was lost adds nothing.
 */
@Injectable({ providedIn: 'root' })
export class DecisionQueue {
  private readonly api = inject(Api);
  private readonly messages = inject(Messages);
  private readonly list = signal<readonly Waiting[]>(stored());
  private readonly cut = signal(false);
  private sending = false;
  /** How many wait because there is no connection. */
  readonly waiting = computed(() => (this.cut() ? this.list().length : 0));

  constructor() {
    globalThis.addEventListener?.('online', () => void this.send());
  }

  /** Adds a decision of a person. */
  add(personId: string, body: DecisionInput): Promise<void> {
    this.keep([...this.list(), { personId, body }]);
    return this.send();
  }

  /** The decisions of a person that the server does not have yet, in their order. */
  unsent(personId: string): DecisionInput[] {
    return this.list()
      .filter(w => w.personId === personId)
      .map(w => w.body);
  }

  /** Calls back once, when a decision that waits is on the server (true), or when the server will not have it. */
  whenGone(id: string, tell: (taken: boolean) => void): void {
    this.told.set(id, tell);
  }

  private readonly told = new Map<string, (taken: boolean) => void>();

  private keep(list: readonly Waiting[]): void {
    this.list.set(list);
    try {
      localStorage.setItem(STORED, JSON.stringify(list));
    } catch {
      // A browser without room keeps them for as long as the page lives.
    }
  }

  /** Sends what waits; those of another person stay until that person is back. */
  async send(personId?: string): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    const mine = personId ?? this.list().at(-1)?.personId;
    try {
      for (;;) {
        const next = this.list().find(w => w.personId === mine);
        if (!next) break;
        let taken = true;
        try {
          await this.api.send('POST', '/decisions', next.body);
          this.cut.set(false);
        } catch (error) {
          if (error instanceof ApiError && error.isCut) {
            this.cut.set(true);
            setTimeout(() => void this.send(mine), TRY_AGAIN_MS);
            return;
          }
          taken = false;
          this.messages.failed(new Error(`A decision could not be kept. ${problemOf(error).detail}`));
        }
        this.keep(this.list().filter(w => w !== next));
        this.told.get(next.body.id)?.(taken);
        this.told.delete(next.body.id);
      }
      this.cut.set(false);
    } finally {
      this.sending = false;
    }
  }
}
