import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import { debounceTime, filter, groupBy, map, mergeMap } from 'rxjs';
import { looks } from '../mix/looks.store';
import { sessionActions } from '../shared/session.store';
import { codes, references } from '../shelf/shelf.store';

/** Which lists a change in the house concerns. */
const LISTS: Record<string, { actions: { load: typeof codes.actions.load } }> = {
  referenceAdded: references,
  referenceChanged: references,
  lookSaved: looks,
  codesChanged: codes,
};

/** What others change is fetched again, once for many changes that come together. */
export const followTheHouse = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(sessionActions.heard),
      filter(({ kind }) => kind in LISTS),
      groupBy(({ kind }) => LISTS[kind]),
      mergeMap(group =>
        group.pipe(
          debounceTime(500),
          map(() => group.key.actions.load()),
        ),
      ),
    ),
  { functional: true },
);
