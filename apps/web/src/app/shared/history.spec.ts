import { History } from './history';

describe('history', () => {
  it('steps back and forth, and a change after that forgets what was undone', () => {
    const h = new History(1);
    h.change(2);
    h.change(3);
    h.undo();
    expect(h.now()).toBe(2);
    h.redo();
    expect(h.now()).toBe(3);
    h.undo();
    h.undo();
    expect(h.now()).toBe(1);
    expect(h.canUndo()).toBeFalse();
    h.undo();
    expect(h.now()).toBe(1);
    h.change(9);
    expect(h.canRedo()).toBeFalse();
  });

  it('takes a whole drag as one step, and no step when it comes back to where it was', () => {
    const h = new History({ v: 0 });
    for (const v of [1, 2, 3]) h.glide({ v });
    h.keep();
    h.glide({ v: 4 });
    h.glide({ v: 3 });
    h.keep();
    h.undo();
    expect(h.now()).toEqual({ v: 0 });
    expect(h.canUndo()).toBeFalse();
  });

  it('forgets the oldest of very many', () => {
    const h = new History(0);
    for (let i = 1; i <= 150; i++) h.change(i);
    for (let i = 0; i < 150; i++) h.undo();
    expect(h.now()).toBe(50);
  });
});
