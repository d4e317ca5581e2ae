import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';
import type { House, Person, Press, Problem, Session } from '@zinc/contract';
import type { Status } from './collection';

export const sessionActions = createActionGroup({
  source: 'session',
  events: {
    open: emptyProps(),
    opened: props<{ session: Session }>(),
    failed: props<{ problem: Problem }>(),
    signedOut: emptyProps(),
    houseLoad: emptyProps(),
    houseLoaded: props<{ house: House }>(),
    pressesChanged: props<{ presses: Press[] }>(),
    /** Something changed in the house: what, about which thing. */
    heard: props<{ kind: string; about: string | null; data: Record<string, unknown> }>(),
  },
});

export interface SessionState {
  status: Status;
  problem: Problem | null;
  person: Person | null;
  houseEmpty: boolean;
  houseName: string | null;
  house: House | null;
}

const initial: SessionState = { status: 'idle', problem: null, person: null, houseEmpty: false, houseName: null, house: null };

export const sessionFeature = createFeature({
  name: 'session',
  reducer: createReducer(
    initial,
    on(sessionActions.open, (s): SessionState => ({ ...s, status: 'loading' })),
    on(sessionActions.opened, (s, { session }): SessionState => ({
      ...s,
      status: 'ready',
      problem: null,
      person: session.person,
      houseEmpty: session.houseEmpty,
      houseName: session.houseName,
    })),
    on(sessionActions.failed, (s, { problem }): SessionState => ({ ...s, status: 'failed', problem })),
    on(sessionActions.houseLoaded, (s, { house }): SessionState => ({ ...s, house, houseName: house.name })),
    on(sessionActions.pressesChanged, (s, { presses }): SessionState => ({ ...s, house: s.house && { ...s.house, presses } })),
    on(sessionActions.signedOut, (s): SessionState => ({ ...initial, status: 'ready', houseName: s.houseName })),
  ),
});
