import { galleyActions, galleyFeature, type Carried } from './galley.store';

describe('the galley', () => {
  const thing = (id: string): Carried => ({ kind: 'reference', id, name: id, pictureSha: null });
  const { reducer } = galleyFeature;
  it('puts in, takes out by the same act, and holds twelve', () => {
    let s = reducer(undefined, galleyActions.put({ thing: thing('a') }));
    s = reducer(s, galleyActions.put({ thing: thing('b') }));
    s = reducer(s, galleyActions.put({ thing: thing('a') }));
    expect(s.things.map(t => t.id)).toEqual(['b']);
    for (let i = 0; i < 15; i++) s = reducer(s, galleyActions.put({ thing: thing(`x${i}`) }));
    expect(s.things.length).toBe(12);
    expect(reducer(s, galleyActions.emptied()).things).toEqual([]);
  });
});
