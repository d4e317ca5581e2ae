import { inject, Injectable } from '@angular/core';
import { Store } from '@ngrx/store';
import { sessionActions } from './session.store';

/** Listens to what changes in the house and tells the store. */
@Injectable({ providedIn: 'root' })
export class Live {
  private readonly store = inject(Store);
  private source: EventSource | null = null;

  start(): void {
    if (this.source) return;
    this.source = new EventSource('/api/events');
    this.source.addEventListener('change', event => {
      const { kind, about, data } = JSON.parse((event as MessageEvent<string>).data) as {
        kind: string;
        about: string | null;
        data: Record<string, unknown>;
      };
      this.store.dispatch(sessionActions.heard({ kind, about, data }));
    });
  }

  stop(): void {
    this.source?.close();
    this.source = null;
  }
}
