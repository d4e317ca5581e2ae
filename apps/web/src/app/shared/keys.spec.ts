import { TestBed } from '@angular/core/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { Keys } from './keys';

describe('keys', () => {
  let keys: Keys;
  let done: string[];
  beforeEach(() => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    keys = TestBed.inject(Keys);
    done = [];
    keys.page.set([
      { key: 'K', does: 'Keep', run: () => done.push('keep') },
      { key: 'Space', does: 'Closer', run: () => done.push('closer') },
      { key: '1 or 2', does: 'Grade', run: e => done.push(`grade ${e.key}`) },
      { key: 'Ctrl Z', does: 'Undo', run: () => done.push('undo') },
    ]);
  });
  const press = (key: string, init: KeyboardEventInit = {}, target: HTMLElement = document.body): KeyboardEvent => {
    const event = new KeyboardEvent('keydown', { key, cancelable: true, ...init });
    Object.defineProperty(event, 'target', { value: target });
    keys.handle(event);
    return event;
  };

  it('run what the page declared, in either case', () => {
    press('k');
    press('K');
    press(' ');
    press('2');
    press('z', { ctrlKey: true });
    expect(done).toEqual(['keep', 'keep', 'closer', 'grade 2', 'undo']);
  });
  it('leave typing, other keys and handled events alone', () => {
    press('k', {}, document.createElement('input'));
    press('k', {}, document.createElement('textarea'));
    press('k', { ctrlKey: true });
    press('k', { altKey: true });
    press('x');
    expect(done).toEqual([]);
    expect(press('k').defaultPrevented).toBeTrue();
    expect(press('x').defaultPrevented).toBeFalse();
  });
});
