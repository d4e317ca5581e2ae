import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import type { Reference } from '@zinc/contract';
import { bufferTime, catchError, debounceTime, filter, from, groupBy, map, mergeMap, of } from 'rxjs';
import { looks } from '../mix/looks.store';
import { wordStyles } from '../mix/word-styles.store';
import { Api } from '../shared/api';
import { sessionActions } from '../shared/session.store';
import { codes, references } from '../shelf/shelf.store';

/** Which lists a change in the house concerns. */
const LISTS: Record<string, { actions: { load: typeof codes.actions.load } }> = {
  lookSaved: looks,
  wordStylesChanged: wordStyles,
  codesChanged: codes,
};
const REFERENCE_KINDS = ['referenceAdded', 'referenceChanged'];
const SETTLE_MS = 500;
/** Of more changes at once the whole list is fetched. */
const MOST_SINGLY = 12;

/** What others change is fetched again, once for many changes that come together. */
export const followTheHouse = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(sessionActions.heard),
      filter(({ kind }) => kind in LISTS),
      groupBy(({ kind }) => LISTS[kind]),
      mergeMap(group =>
        group.pipe(
          debounceTime(SETTLE_MS),
          map(() => group.key.actions.load()),
        ),
      ),
    ),
  { functional: true },
);

/** References are many: a few that changed are fetched one by one. */
export const followReferences = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(sessionActions.heard),
      filter(({ kind }) => REFERENCE_KINDS.includes(kind)),
      bufferTime(SETTLE_MS),
      filter(heard => heard.length > 0),
      mergeMap(heard => {
        const ids = [...new Set(heard.map(h => h.about))];
        if (ids.length > MOST_SINGLY || ids.includes(null)) return of(references.actions.load());
        return from(Promise.all(ids.map(id => api.get<Reference>(`/references/${id}`)))).pipe(
          map(items => references.actions.saved({ items })),
          // Whatever went wrong with one of them, the list says it plainly.
          catchError(() => of(references.actions.load())),
        );
      }),
    ),
  { functional: true },
);
