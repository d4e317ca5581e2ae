import { problem } from '@zinc/contract';
import { createCollection } from './collection';

interface Thing {
  id: string;
  name: string;
}

describe('a collection in the store', () => {
  const things = createCollection<Thing>('things');
  const { reducer } = things.feature;
  const state = (s: ReturnType<typeof reducer>) => ({ things: s });

  it('keeps the order of the server, takes in what was saved, forgets what was put away', () => {
    let s = reducer(undefined, things.actions.load());
    expect(things.status(state(s))).toBe('loading');
    s = reducer(
      s,
      things.actions.loaded({
        items: [
          { id: 'b', name: 'B' },
          { id: 'a', name: 'A' },
        ],
      }),
    );
    expect(things.all(state(s)).map(t => t.id)).toEqual(['b', 'a']);
    s = reducer(
      s,
      things.actions.saved({
        items: [
          { id: 'a', name: 'A2' },
          { id: 'c', name: 'C' },
        ],
      }),
    );
    expect(things.all(state(s)).map(t => t.name)).toEqual(['B', 'A2', 'C']);
    s = reducer(s, things.actions.removed({ id: 'b' }));
    expect(things.all(state(s)).length).toBe(2);
  });
  it('keeps what it has when a later load fails', () => {
    let s = reducer(undefined, things.actions.loaded({ items: [{ id: 'a', name: 'A' }] }));
    s = reducer(s, things.actions.failed({ problem: problem('broken', 'gone') }));
    expect(things.status(state(s))).toBe('ready');
    expect(things.all(state(s)).length).toBe(1);
    const never = reducer(undefined, things.actions.failed({ problem: problem('broken', 'gone') }));
    expect(things.status(state(never))).toBe('failed');
    expect(things.problem(state(never))?.detail).toBe('gone');
  });
  it('shows what has come of a long list, and is ready only when it is whole', () => {
    let s = reducer(undefined, things.actions.load());
    s = reducer(s, things.actions.some({ items: [{ id: 'a', name: 'A' }] }));
    expect(s.ids).toEqual(['a']);
    expect(s.status).toBe('loading');
    s = reducer(s, things.actions.loaded({ items: [{ id: 'b', name: 'B' }] }));
    expect(s.ids).toEqual(['b']);
    expect(s.status).toBe('ready');
  });
});
