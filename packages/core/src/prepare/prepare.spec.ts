import { labDistance2, labOfHex, toLabPlanes } from '../colour/oklab.ts';
import { hashPixels } from '../image/workingCopy.ts';
import type { Lab, Picture } from '../image/types.ts';
import { drift } from '../drift/drift.ts';
import { measure } from '../measure/measure.ts';
import { prepare } from './prepare.ts';
import { NO_TREATMENT, PreparationError, type Preparation, type Treatment } from './types.ts';
import { pictureOfPlaces } from '../testPictures.ts';

type Rgb = [number, number, number];

const rgbAt = ({ width, data }: Picture, x: number, y: number): number[] => [
  ...data.subarray((y * width + x) * 4, (y * width + x) * 4 + 4),
];
const labAt = (p: Picture, x: number, y: number): Lab => {
  const { L, a, b } = toLabPlanes(p);
  const i = y * p.width + x;
  return { L: L[i], a: a[i], b: b[i] };
};
const PAPER: Rgb = [238, 228, 206];
const INK: Rgb = [24, 50, 74];
const ring = (x: number, y: number): boolean => {
  const d = (x - 0.5) ** 2 + (y - 0.5) ** 2;
  return d < 0.09 && d > 0.02;
};
const print = pictureOfPlaces(240, 180, (x, y) => (ring(x, y) ? INK : PAPER));
const treated = (part: Partial<Treatment>): Preparation => ({ treatment: { ...NO_TREATMENT, ...part } });
const problemOf = (p: Preparation, of = print): PreparationError => {
  try {
    prepare(of, p);
  } catch (error) {
    return error as PreparationError;
  }
  return fail('it was carried out') as never;
};

describe('preparing a picture', () => {
  it('never changes the picture it is made from, and comes to the same pixels again', () => {
    const before = hashPixels(print);
    const all: Preparation = {
      paintOut: [{ points: [0.5, 0.22], size: 0.1 }],
      recolour: [{ x: 0.5, y: 0.75, to: '#8e2a4b', reach: 30, joined: true }],
      cutOut: { reach: 30, pockets: true, strokes: [] },
      crop: { x: 0.1, y: 0.1, width: 0.8, height: 0.8 },
      treatment: { roller: 30, plate: 20, dots: 40, dotGap: 8, soften: 10, hue: 20, grain: 30 },
    };
    expect(hashPixels(prepare(print, all))).toBe(hashPixels(prepare(print, all)));
    expect(hashPixels(print)).toBe(before);
    expect(hashPixels(prepare(print, { ...all, treatment: { ...all.treatment!, roller: 31 } }))).not.toBe(
      hashPixels(prepare(print, all)),
    );
  });

  it('crops to the pixels of the box', () => {
    const made = prepare(print, { crop: { x: 0.25, y: 0.5, width: 0.5, height: 0.25 } });
    expect([made.width, made.height]).toEqual([120, 45]);
    expect(rgbAt(made, 7, 9)).toEqual(rgbAt(print, 67, 99));
  });

  it('refuses a crop of nothing, and says what is too small', () => {
    const problem = problemOf({ crop: { x: 0.5, y: 0.5, width: 0, height: 0.3 } });
    expect(problem).toBeInstanceOf(PreparationError);
    expect(problem.part).toBe('crop');
    expect(problem.message).toContain('0 × 54 pixels');
  });

  it('cuts a plain ground away, and what is seen of it through the thing', () => {
    const made = prepare(print, { cutOut: { reach: 30, pockets: true, strokes: [] } });
    expect(rgbAt(made, 5, 5)[3]).toBe(0);
    expect(rgbAt(made, 120, 90)[3]).toBe(0);
    expect(rgbAt(made, 120, 50)).toEqual([...INK, 255]);
    const shut = prepare(print, { cutOut: { reach: 30, pockets: false, strokes: [] } });
    expect(rgbAt(shut, 120, 90)[3]).toBe(255);
  });

  it('takes the ground out of the colours along the rim', () => {
    const large = pictureOfPlaces(600, 600, (x, y) => {
      const d = Math.sqrt((x - 0.5) ** 2 + (y - 0.5) ** 2);
      const t = Math.min(1, Math.max(0, (0.3 - d) * 200 + 0.5));
      return PAPER.map((v, c) => v + t * (INK[c] - v)) as Rgb;
    });
    const made = prepare(large, { cutOut: { reach: 30, pockets: true, strokes: [] } });
    let rim = 0;
    for (let i = 0; i < made.data.length; i += 4) {
      const alpha = made.data[i + 3];
      if (alpha < 40 || alpha > 215) continue;
      rim++;
      expect(Math.abs(made.data[i] - INK[0])).toBeLessThan(60);
    }
    expect(rim).toBeGreaterThan(300);
  });

  it('follows the brush over its own guess', () => {
    const strokes = [
      { points: [0.1, 0.1, 0.2, 0.1], size: 0.06, stays: true },
      { points: [0.5, 0.26], size: 0.05, stays: false },
    ];
    const made = prepare(print, { cutOut: { reach: 30, pockets: true, strokes } });
    expect(rgbAt(made, 36, 18)[3]).toBe(255);
    expect(rgbAt(made, 120, 47)[3]).toBe(0);
  });

  it('says so when the ground is not plain, and when nothing would be left', () => {
    const busy = pictureOfPlaces(160, 160, (x, y) => [(x * 977 * 13) % 255, (y * 1313 * 7) % 255, (x * y * 4099) % 255]);
    expect(problemOf({ cutOut: { reach: 10, pockets: true, strokes: [] } }, busy).part).toBe('cutOut');
    const plain = pictureOfPlaces(80, 80, () => PAPER);
    expect(problemOf({ cutOut: { reach: 30, pockets: true, strokes: [] } }, plain).message).toContain('Nothing would be left');
  });

  it('paints a stray thing out with what is around it', () => {
    const striped = (x: number, y: number): Rgb => ((((x + y) * 40) | 0) % 2 ? [60, 90, 70] : [220, 210, 180]);
    const stray = pictureOfPlaces(200, 200, (x, y) => ((x - 0.5) ** 2 + (y - 0.5) ** 2 < 0.006 ? [200, 40, 40] : striped(x, y)));
    const made = prepare(stray, { paintOut: [{ points: [0.5, 0.5], size: 0.2 }] });
    const { a } = toLabPlanes(made);
    expect(Math.max(...a)).toBeLessThan(0.04);
    // The stripes run on through the place: dark and light each take about half of it.
    let dark = 0;
    for (let y = 88; y < 112; y++) for (let x = 88; x < 112; x++) dark += Number(labAt(made, x, y).L < 0.62);
    expect(dark / 576).toBeGreaterThan(0.3);
    expect(dark / 576).toBeLessThan(0.7);
    expect(rgbAt(made, 20, 20)).toEqual(rgbAt(stray, 20, 20));
  });

  it('refuses to paint everything out', () => {
    expect(problemOf({ paintOut: [{ points: [0, 0.5, 1, 0.5], size: 2 }] }).part).toBe('paintOut');
  });

  it('recolours the one thing, its shades with it, or everything of its colour', () => {
    const two = pictureOfPlaces(200, 100, (x, y) =>
      (x - 0.25) ** 2 + (y - 0.5) ** 2 < 0.02 || (x - 0.75) ** 2 + (y - 0.5) ** 2 < 0.02 ? [180 + 30 * y, 60, 50] : PAPER,
    );
    const to = '#2f6f9f';
    const one = prepare(two, { recolour: [{ x: 0.25, y: 0.5, to, reach: 30, joined: true }] });
    expect(labDistance2(labAt(one, 50, 50), labOfHex(to))).toBeLessThan(0.0004);
    expect(rgbAt(one, 150, 50)).toEqual(rgbAt(two, 150, 50));
    expect(labAt(one, 50, 57).L).toBeGreaterThan(labAt(one, 50, 43).L);
    const both = prepare(two, { recolour: [{ x: 0.25, y: 0.5, to, reach: 30, joined: false }] });
    expect(labDistance2(labAt(both, 150, 50), labOfHex(to))).toBeLessThan(0.0004);
    expect(labDistance2(labAt(both, 100, 10), labAt(two, 100, 10))).toBeLessThan(1e-5);
  });

  it('lets more paper through the more it is treated, and only where there was ink', () => {
    const inked = (p: Picture): number => toLabPlanes(p).L.reduce((s, v) => s + (v < 0.5 ? 1 : 0), 0);
    for (const key of ['roller', 'plate'] as const) {
      const amounts = [0, 30, 60, 90].map(v => inked(prepare(print, treated({ [key]: v }))));
      expect(amounts)
        .withContext(key)
        .toEqual([...amounts].sort((p, q) => q - p));
      expect(amounts[3])
        .withContext(key)
        .toBeLessThan(0.75 * amounts[0]);
      expect(labDistance2(labAt(prepare(print, treated({ [key]: 90 })), 8, 8), labAt(print, 8, 8))).toBeLessThan(1e-4);
    }
  });

  it('shifts hues by the angle and leaves greys', () => {
    const made = prepare(print, treated({ hue: 180 }));
    const [before, after] = [labAt(print, 120, 50), labAt(made, 120, 50)];
    expect(after.b).toBeCloseTo(-before.b, 1);
    const grey = pictureOfPlaces(60, 60, x => [x * 255, x * 255, x * 255]);
    expect(hashPixels(prepare(grey, treated({ hue: 90 })))).toBe(hashPixels(grey));
  });

  it('turns marks and leaves shapes', () => {
    const hatched = pictureOfPlaces(512, 512, (x, y) => {
      const v = 150 + (x > 0.5 ? 60 : 0) + (((y * 128) | 0) % 2 ? 22 : -22);
      return [v, v, v];
    });
    const made = prepare(hatched, treated({ grain: 90 }));
    const across = (p: Picture, dx: number, dy: number): number => {
      const { L, width } = toLabPlanes(p);
      let sum = 0;
      for (let y = 40; y < 470; y++)
        for (let x = 40; x < 200; x++) sum += Math.abs(L[y * width + x] - L[(y + dy) * width + x + dx]);
      return sum;
    };
    expect(across(hatched, 0, 4)).toBeGreaterThan(5 * across(hatched, 4, 0));
    expect(across(made, 4, 0)).toBeGreaterThan(2 * across(made, 0, 4));
    const mean = (p: Picture, from: number): number => {
      const { L, width } = toLabPlanes(p);
      let sum = 0;
      for (let y = 100; y < 400; y++) for (let x = from; x < from + 100; x++) sum += L[y * width + x];
      return sum / 30_000;
    };
    expect(mean(made, 100)).toBeCloseTo(mean(hatched, 100), 1);
    expect(mean(made, 380)).toBeCloseTo(mean(hatched, 380), 1);
  });

  it('looks at any size as it does at another', () => {
    const shape = (side: number): Picture => pictureOfPlaces(side, side, (x, y) => (ring(x, y) ? INK : PAPER));
    const at = (side: number) => measure(prepare(shape(side), treated({ dots: 100, dotGap: 9 })));
    expect(drift(at(512), at(1024)).total).toBeLessThan(0.35);
  });

  it('keeps the transparency of what it treats', () => {
    const made = prepare(print, { cutOut: { reach: 30, pockets: true, strokes: [] }, ...treated({ plate: 50 }) });
    expect(rgbAt(made, 5, 5)[3]).toBe(0);
    expect(rgbAt(made, 120, 50)[3]).toBe(255);
  });
});
