import { createActionGroup, createFeature, createReducer, emptyProps, on, props } from '@ngrx/store';

/** One thing carried from step to step; the id of a code is its text. */
export interface Carried {
  kind: 'reference' | 'look' | 'proof' | 'code';
  id: string;
  name: string;
  pictureSha: string | null;
}

export const galleyActions = createActionGroup({
  source: 'galley',
  events: { put: props<{ thing: Carried }>(), taken: props<{ id: string }>(), emptied: emptyProps() },
});

export const galleyFeature = createFeature({
  name: 'galley',
  reducer: createReducer(
    { things: [] as Carried[] },
    // Putting in what lies there already takes it out, so that one key does both.
    on(galleyActions.put, (s, { thing }) => ({
      things: s.things.some(t => t.id === thing.id) ? s.things.filter(t => t.id !== thing.id) : [...s.things, thing].slice(-12),
    })),
    on(galleyActions.taken, (s, { id }) => ({ things: s.things.filter(t => t.id !== id) })),
    on(galleyActions.emptied, () => ({ things: [] })),
  ),
});
