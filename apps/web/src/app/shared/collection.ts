import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { createEntityAdapter, type EntityState } from '@ngrx/entity';
import { createActionGroup, createFeature, createReducer, createSelector, emptyProps, on, props, type Action } from '@ngrx/store';
import type { Problem } from '@zinc/contract';
import { Observable, switchMap } from 'rxjs';
import { problemOf } from './api';

export type Status = 'idle' | 'loading' | 'ready' | 'failed';

export interface CollectionState<T> extends EntityState<T> {
  status: Status;
  problem: Problem | null;
}

/** A store slice that holds a list of things by id: loading, failing, taking in what was saved, forgetting what was put away. */
export function createCollection<T extends { id: string }>(name: string) {
  const adapter = createEntityAdapter<T>();
  const actions = createActionGroup({
    // One literal type for all slices: the real name is what the store's tools show.
    source: name as 'collection',
    events: {
      load: emptyProps(),
      /** Part of the list, while the rest is on its way. */
      some: props<{ items: T[] }>(),
      loaded: props<{ items: T[] }>(),
      failed: props<{ problem: Problem }>(),
      saved: props<{ items: T[] }>(),
      removed: props<{ id: string }>(),
    },
  });
  const initial: CollectionState<T> = adapter.getInitialState({ status: 'idle' as Status, problem: null });
  const feature = createFeature({
    name: name as 'collection',
    reducer: createReducer(
      initial,
      on(actions.load, (s): CollectionState<T> => ({ ...s, status: s.status === 'ready' ? 'ready' : 'loading', problem: null })),
      // Not ready yet: what is not among them may still be on its way.
      on(actions.some, (s, { items }): CollectionState<T> => adapter.upsertMany(items, s)),
      on(actions.loaded, (s, { items }): CollectionState<T> =>
        adapter.setAll(items, { ...s, status: 'ready' as Status, problem: null }),
      ),
      on(actions.failed, (s, { problem }): CollectionState<T> => ({
        ...s,
        status: s.status === 'ready' ? 'ready' : 'failed',
        problem,
      })),
      on(actions.saved, (s, { items }): CollectionState<T> => adapter.upsertMany(items, s)),
      on(actions.removed, (s, { id }): CollectionState<T> => adapter.removeOne(id, s)),
    ),
  });
  const select = (state: object): CollectionState<T> => (state as Record<string, CollectionState<T>>)[name] ?? initial;
  const selectors = adapter.getSelectors();
  return {
    actions,
    feature,
    /** Things in the order the server gave them. */
    all: createSelector(select, s => selectors.selectAll(s)),
    status: createSelector(select, s => s.status),
    problem: createSelector(select, s => s.problem),
    /** The effect that loads the list; `fetchAll` is made once, in an injection context, and may tell parts of the list before it is whole. */
    loadEffect: (makeFetch: () => (tell: (items: T[]) => void) => Promise<T[]>) =>
      createEffect(
        (stream = inject(Actions), fetchAll = makeFetch()) =>
          stream.pipe(
            ofType(actions.load),
            switchMap(
              () =>
                new Observable<Action>(out => {
                  fetchAll(items => out.next(actions.some({ items })))
                    .then(items => out.next(actions.loaded({ items })))
                    .catch((error: unknown) => out.next(actions.failed({ problem: problemOf(error) })))
                    .finally(() => out.complete());
                }),
            ),
          ),
        { functional: true },
      ),
  };
}
