import { labDistance2, labOfHex } from '../colour/oklab.ts';
import { measure } from '../measure/measure.ts';
import { mix } from '../mix/mix.ts';
import { drift } from '../drift/drift.ts';
import { facetMaps } from '../measure/facetMaps.ts';
import { pictureOf, sampleContent, stripes } from '../testPictures.ts';
import type { Picture } from '../image/types.ts';
import { describeFraming } from './describeFraming.ts';
import { framingOf } from './measureFraming.ts';
import { mixFraming } from './mixFraming.ts';
import { onSheet } from './onSheet.ts';
import type { Framing } from './types.ts';

const SHEET = labOfHex('#d9cbb0');
const PLAIN: Framing = { margins: [0, 0, 0, 0], corner: 0, sheet: null, seat: null };

/** Worked paper laid on a sheet by a framing. */
function mounted(framing: Partial<Framing>, size = 300): Picture {
  return onSheet({ ...PLAIN, sheet: SHEET, ...framing }, size, size, [], (w, h) =>
    pictureOf(w, h, (x, y) => [60 + ((x * 7) % 90), 40 + ((y * 5) % 80), 120]),
  );
}

describe('framing', () => {
  it('finds margins on each side, and their colour, to a hundredth', () => {
    const f = framingOf(mounted({ margins: [0.08, 0.1, 0.16, 0.1] }));
    [0.08, 0.1, 0.16, 0.1].forEach((m, i) => expect(f.margins[i]).toBeCloseTo(m, 1.7));
    expect(Math.sqrt(labDistance2(f.sheet!, SHEET))).toBeLessThan(0.01);
    expect(f.corner).toBe(0);
    expect(describeFraming(f)).toBe('wide margins');
  });

  it('finds round corners, and tells them from square ones', () => {
    const f = framingOf(mounted({ margins: [0.06, 0.06, 0.06, 0.06], corner: 0.15 }));
    expect(f.corner).toBeCloseTo(0.15, 1);
    expect(describeFraming(f)).toBe('clear margins, round corners');
  });

  it('takes a plain ground around a thing for no margin, but says how the thing sits', () => {
    const f = framingOf(
      pictureOf(300, 300, (x, y) => {
        const [u, v] = [(x - 150) / 80, (y - 190) / 80];
        return u * u + v * v < 1 ? [150 - 40 * u, 60 - 20 * v, 40] : [243, 238, 226];
      }),
    );
    expect(f.margins).toEqual([0, 0, 0, 0]);
    expect(f.seat!.size).toBeCloseTo(0.53, 1);
    expect(describeFraming(f)).toMatch(/^the thing fills 5\d %, low$/);
  });

  it('finds no thing in a pattern and nothing at all in a plain sheet', () => {
    expect(framingOf(stripes(200, 9, 0.4)).seat).toBeNull();
    expect(describeFraming(framingOf(pictureOf(200, 200, () => [240, 240, 236])))).toBe('');
  });

  it('is left out of what is measured: a mounted picture is as near to itself as can be', () => {
    const framing = { ...PLAIN, sheet: labOfHex('#33403a'), margins: [0.1, 0.1, 0.1, 0.1] as Framing['margins'] };
    let inner = sampleContent(1);
    const laid = onSheet(framing, 325, 325, [], w => (inner = sampleContent(w, 3)));
    const whole = measure(laid);
    expect(whole.framing!.margins[0]).toBeCloseTo(0.1, 1.7);
    expect(drift(whole, measure(inner)).total).toBeLessThan(0.1);
  });

  it('has no part in where a facet comes from', () => {
    const map = facetMaps(mounted({ margins: [0.2, 0.2, 0.2, 0.2] })).texture;
    const at = (x: number, y: number): number => map.data[Math.round(y * map.height) * map.width + Math.round(x * map.width)];
    expect(at(0.05, 0.5)).toBe(0);
    expect(at(0.5, 0.05)).toBe(0);
  });

  it('is mixed by parts, and its sheet takes the nearest colour of a palette from elsewhere', () => {
    const palette = [labOfHex('#23262b'), labOfHex('#f3eee2')].map(c => ({ ...c, share: 0.5 }));
    const one = { ...PLAIN, sheet: SHEET, margins: [0.1, 0.1, 0.1, 0.1] as Framing['margins'] };
    const other = { ...PLAIN, seat: { x: 0.5, y: 0.6, size: 0.6 } };
    const mixed = mixFraming(
      [
        { framing: one, parts: 3, colour: false },
        { framing: other, parts: 1, colour: true },
      ],
      palette,
    )!;
    expect(mixed.margins[2]).toBeCloseTo(0.075, 6);
    expect(mixed.seat).toEqual(other.seat);
    expect(labDistance2(mixed.sheet!, palette[1])).toBeLessThan(1e-9);
    expect(mixFraming([{ framing: one, parts: 1, colour: true }], palette)!.sheet).toEqual(SHEET);
    expect(mixFraming([{ framing: PLAIN, parts: 4, colour: true }], palette)).toBeNull();
  });

  it('comes into a look only where a source gives it', () => {
    const fingerprint = measure(mounted({ margins: [0.1, 0.1, 0.1, 0.1] }));
    const source = { parts: 1, facets: ['colour', 'light', 'line', 'texture'] as const, fingerprint };
    expect(mix([source]).style.framing).toBeNull();
    expect(mix([{ ...source, framing: true }]).style.framing!.margins[0]).toBeCloseTo(0.1, 1.7);
  });

  it('lays what is painted between the margins and leaves it alone without any', () => {
    const inner = sampleContent(64);
    expect(onSheet(PLAIN, 64, 64, [], () => inner)).toBe(inner);
    const out = mounted({ margins: [0.1, 0.2, 0.1, 0.2], corner: 0.2 }, 200);
    const pixel = (x: number, y: number): number[] => [...out.data.subarray((y * 200 + x) * 4, (y * 200 + x) * 4 + 3)];
    expect(pixel(5, 100)).toEqual([217, 203, 176]);
    expect(pixel(41, 21)).toEqual([217, 203, 176]);
    expect(pixel(100, 100)).not.toEqual([217, 203, 176]);
  });

  it('keeps a colour that must never be seen out of the sheet', () => {
    const never = [{ ...SHEET, radius: 0.05 }];
    const out = onSheet({ ...PLAIN, sheet: SHEET, margins: [0.1, 0.1, 0.1, 0.1] }, 100, 100, never, (w, h) =>
      pictureOf(w, h, () => [20, 20, 20]),
    );
    expect([...out.data.subarray(0, 3)]).not.toEqual([217, 203, 176]);
  });
});
