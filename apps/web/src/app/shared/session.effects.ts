import { inject } from '@angular/core';
import { Actions, createEffect, ofType } from '@ngrx/effects';
import type { House, Session } from '@zinc/contract';
import { catchError, debounceTime, EMPTY, filter, from, map, of, switchMap } from 'rxjs';
import { Api, problemOf } from './api';
import { sessionActions } from './session.store';

export const openSession = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(sessionActions.open),
      switchMap(() =>
        from(api.get<Session>('/session')).pipe(
          map(session => sessionActions.opened({ session })),
          catchError((error: unknown) => of(sessionActions.failed({ problem: problemOf(error) }))),
        ),
      ),
    ),
  { functional: true },
);

export const loadHouseAtSignIn = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(sessionActions.opened),
      filter(({ session }) => session.person !== null),
      map(() => sessionActions.houseLoad()),
    ),
  { functional: true },
);

export const loadHouse = createEffect(
  (actions = inject(Actions), api = inject(Api)) =>
    actions.pipe(
      ofType(sessionActions.houseLoad),
      switchMap(() =>
        from(api.get<House>('/house')).pipe(
          map(house => sessionActions.houseLoaded({ house })),
          // What the presses do is shown again at the next change; nothing on the page depends on it.
          catchError(() => EMPTY),
        ),
      ),
    ),
  { functional: true },
);

export const refreshPresses = createEffect(
  (actions = inject(Actions)) =>
    actions.pipe(
      ofType(sessionActions.heard),
      filter(({ kind }) => /^(run|take|press)/.test(kind)),
      debounceTime(1500),
      map(() => sessionActions.houseLoad()),
    ),
  { functional: true },
);
