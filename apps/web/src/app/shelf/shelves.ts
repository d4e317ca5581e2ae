import { inject, Injectable, signal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { Actions, ofType } from '@ngrx/effects';
import { Store } from '@ngrx/store';
import type { Reference } from '@zinc/contract';
import { filter } from 'rxjs';
import { Api } from '../shared/api';
import { Messages } from '../shared/messages';
import { sessionActions } from '../shared/session.store';
import { references } from './shelf.store';

/** The named shelves in the order given by hand, and how things are put on them. */
@Injectable({ providedIn: 'root' })
export class Shelves {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly messages = inject(Messages);
  readonly order = signal<readonly string[]>([]);

  constructor() {
    inject(Actions)
      .pipe(
        ofType(sessionActions.heard),
        filter(({ kind }) => kind === 'shelvesChanged'),
        takeUntilDestroyed(),
      )
      .subscribe(() => void this.refresh());
    void this.refresh();
  }

  async refresh(): Promise<void> {
    try {
      this.order.set((await this.api.get<{ names: string[] }>('/shelves')).names);
    } catch (error) {
      this.messages.failed(error);
    }
  }

  /** Puts all shelves in an order. */
  async reorder(names: readonly string[]): Promise<void> {
    const before = this.order();
    this.order.set(names);
    try {
      await this.api.send('PATCH', '/shelves', { names });
    } catch (error) {
      this.order.set(before);
      this.messages.failed(error);
    }
  }

  async rename(from: string, to: string): Promise<boolean> {
    try {
      const { message } = await this.api.send<{ message: string }>('POST', '/shelves/rename', { from, to });
      await this.refresh();
      this.store.dispatch(references.actions.load());
      this.messages.done(message);
      return true;
    } catch (error) {
      this.messages.failed(error);
      return false;
    }
  }

  /** Puts a reference on a shelf at a place; what someone else changed meanwhile is told. */
  async put(r: Reference, shelf: string, place: number): Promise<void> {
    if (r.shelf === shelf && r.place === place) return;
    this.store.dispatch(references.actions.saved({ items: [{ ...r, shelf, place }] }));
    try {
      const saved = await this.api.send<Reference>('PATCH', `/references/${r.id}`, { shelf, place }, r.revision);
      this.store.dispatch(references.actions.saved({ items: [saved] }));
    } catch (error) {
      this.store.dispatch(references.actions.saved({ items: [r] }));
      this.messages.failed(error);
    }
  }
}
