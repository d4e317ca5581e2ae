import { TestBed } from '@angular/core/testing';
import { provideZonelessChangeDetection } from '@angular/core';
import { InkBar, type InkPart } from './ink-bar';

const INKS: InkPart[] = [
  { name: 'Furrow', parts: 6, colour: '#17324a' },
  { name: 'Cloth', parts: 4, colour: '#5f7f6b' },
  { name: 'Brand', parts: 2, colour: '#8e2a4b' },
];

describe('ink bar', () => {
  async function make() {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(InkBar);
    fixture.componentRef.setInput('inks', INKS);
    const moved: number[][] = [];
    let settled = 0;
    fixture.componentInstance.moved.subscribe(p => moved.push(p));
    fixture.componentInstance.settled.subscribe(() => settled++);
    await fixture.whenStable();
    const host = fixture.nativeElement as HTMLElement;
    host.style.height = '240px';
    document.body.append(host);
    return { host, moved, settled: () => settled, sliders: [...host.querySelectorAll<HTMLElement>('[role=slider]')] };
  }

  it('has a divider between neighbours that says what it divides', async () => {
    const { sliders } = await make();
    expect(sliders.length).toBe(2);
    expect(sliders[0].getAttribute('aria-label')).toBe('Parts of Furrow against Cloth');
    expect(sliders[0].getAttribute('aria-valuenow')).toBe('6');
    expect(sliders[0].getAttribute('aria-valuemax')).toBe('10');
  });
  it('moves by arrow keys, one part at a time, and stops at the ends', async () => {
    const { sliders, moved, settled } = await make();
    const press = (key: string): boolean => sliders[1].dispatchEvent(new KeyboardEvent('keydown', { key, cancelable: true }));
    press('ArrowDown');
    expect(moved.at(-1)).toEqual([6, 5, 1]);
    press('ArrowUp');
    expect(moved.at(-1)).toEqual([6, 3, 3]);
    expect(settled()).toBe(2);
    expect(press('Tab')).toBeTrue();
    expect(moved.length).toBe(2);
  });
  it('moves under the pointer and keeps the sum of the two neighbours', async () => {
    const { host, sliders, moved, settled } = await make();
    const divider = sliders[0];
    divider.setPointerCapture = () => undefined;
    const at = (type: string, clientY: number): boolean =>
      divider.dispatchEvent(new PointerEvent(type, { clientY, pointerId: 1, bubbles: true, cancelable: true }));
    at('pointerdown', 100);
    at('pointermove', 100 + host.clientHeight / 4);
    expect(moved.at(-1)).toEqual([9, 1, 2]);
    at('pointermove', 2000);
    expect(moved.at(-1)).toEqual([10, 0, 2]);
    expect(settled()).toBe(0);
    at('pointerup', 2000);
    expect(settled()).toBe(1);
    const count = moved.length;
    at('pointermove', 0);
    expect(moved.length).toBe(count);
    host.remove();
  });
});
