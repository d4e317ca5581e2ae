import { labOfHex, toLabPlanes } from '../colour/oklab.ts';
import { drift } from '../drift/drift.ts';
import { likeness } from '../drift/likeness.ts';
import type { Picture } from '../image/types.ts';
import { hashPixels } from '../image/workingCopy.ts';
import { measure } from '../measure/measure.ts';
import { FACETS } from '../measure/types.ts';
import { mix, paletteFromColours } from '../mix/mix.ts';
import { neutralStyle, type Style } from '../mix/style.ts';
import { BRAND, pictureOf, sampleContent, stripes } from '../testPictures.ts';
import { paint, painting } from './paint.ts';

const hatched = mix([{ parts: 1, facets: [...FACETS], fingerprint: measure(stripes(512, 8, 0.6)) }]);
const branded: Style = {
  ...neutralStyle(),
  palette: paletteFromColours(BRAND),
  amounts: { ...neutralStyle().amounts, flat: 1, smooth: 2 },
};

describe('painting', () => {
  it('gives the content back byte for byte at strength 0', () => {
    const content = sampleContent(80);
    const out = paint(content, hatched.style, 0, 1);
    expect(hashPixels(out)).toBe(hashPixels(content));
    expect(out.data).not.toBe(content.data);
  });
  it('is the same for the same seed and differs for another', () => {
    const content = sampleContent(80);
    const once = hashPixels(paint(content, hatched.style, 1, 7));
    expect(hashPixels(paint(content, hatched.style, 1, 7))).toBe(once);
    expect(hashPixels(paint(content, hatched.style, 1, 8))).not.toBe(once);
  });
  it('comes nearer to the look as strength grows', () => {
    const content = sampleContent(256);
    const far = drift(measure(content), hatched.target!).total;
    const half = drift(measure(paint(content, hatched.style, 0.5, 3)), hatched.target!).total;
    const full = drift(measure(paint(content, hatched.style, 1, 3)), hatched.target!).total;
    expect(half).toBeLessThan(far);
    expect(full).toBeLessThan(half);
  });
  it('uses only the palette where areas are flat', () => {
    const { L, a, b } = toLabPlanes(paint(sampleContent(96), branded, 1, 1));
    let off = 0;
    for (let i = 0; i < L.length; i++) {
      const nearest = Math.min(...branded.palette.map(c => Math.hypot(c.L - L[i], c.a - a[i], c.b - b[i])));
      if (nearest > 0.03) off++;
    }
    // What is left over are antialiased edges.
    expect(off / L.length).toBeLessThan(0.16);
  });
  it('keeps order of lightness and keeps neighbours apart', () => {
    const content = pictureOf(96, 96, x => (x < 32 ? [30, 30, 34] : x < 64 ? [140, 60, 80] : [240, 238, 230]));
    const { L } = toLabPlanes(paint(content, branded, 1, 1));
    const at = (x: number): number => L[48 * 96 + x];
    expect(at(16)).toBeLessThan(at(48) - 0.05);
    expect(at(48)).toBeLessThan(at(80) - 0.05);
  });
  it('leaves the content its own colours when no source gives colour', () => {
    const style: Style = { ...branded, palette: [] };
    const content = pictureOf(64, 64, x => (x < 32 ? [200, 40, 60] : [40, 90, 200]));
    const { data } = paint(content, style, 1, 1);
    const red = (32 * 64 + 10) * 4;
    const blue = (32 * 64 + 54) * 4;
    expect(data[red]).toBeGreaterThan(data[red + 2] + 80);
    expect(data[blue + 2]).toBeGreaterThan(data[blue] + 80);
  });
  it('keeps never colours out of what it paints', () => {
    const violet = labOfHex('#6a3fb5');
    const style: Style = { ...branded, palette: [...branded.palette, { ...violet, share: 0.3 }] };
    const content = pictureOf(64, 64, x => (x < 32 ? [106, 63, 181] : [240, 238, 230]));
    const { L, a, b } = toLabPlanes(paint(content, style, 1, 1, { never: [{ ...violet, radius: 0.12 }] }));
    let seen = 0;
    for (let i = 0; i < L.length; i++) if (Math.hypot(L[i] - violet.L, a[i] - violet.a, b[i] - violet.b) < 0.08) seen++;
    expect(seen / L.length).toBeLessThan(0.01);
  });
  it('steps evenly: fifths of strength change the measure alike', () => {
    const content = sampleContent(256, 2);
    const seen = [0, 0.2, 0.4, 0.6, 0.8, 1].map(s => measure(paint(content, hatched.style, s, 3)));
    const steps = seen.slice(1).map((f, i) => drift(seen[i], f).total);
    expect(Math.max(...steps) / Math.min(...steps)).toBeLessThan(2);
  });
  it('keeps more of the content the higher the fidelity, and still shows the look', () => {
    const content = sampleContent(256, 2);
    const at = (f: number) => paint(content, branded, 1, 3, { fidelity: { subject: f, ground: f } });
    const [none, some, most] = [0, 0.5, 0.9].map(f => likeness(content, at(f)));
    expect(some).toBeGreaterThan(none);
    expect(most).toBeGreaterThan(0.85);
    expect(drift(measure(at(0.9)), measure(content)).colour).toBeGreaterThan(0.1);
  });
  it('keeps subject and ground apart in fidelity', () => {
    const content = sampleContent(128, 2);
    const mask = new Float32Array(128 * 128).map((_, i) => (i % 128 < 64 ? 1 : 0));
    const out = paint(content, branded, 1, 3, { mask, fidelity: { subject: 0.9, ground: 0 } });
    const half = (p: Picture, from: number): Picture =>
      pictureOf(64, 128, (x, y) => {
        const i = (y * 128 + x + from) * 4;
        return [p.data[i], p.data[i + 1], p.data[i + 2]];
      });
    expect(likeness(half(content, 0), half(out, 0))).toBeGreaterThan(likeness(half(content, 64), half(out, 64)));
  });
  it('leaves areas clear', () => {
    const out = paint(sampleContent(128), hatched.style, 1, 3, { clear: [{ x: 0.1, y: 0.1, width: 0.4, height: 0.3 }] });
    const { L } = toLabPlanes(out);
    const inside: number[] = [];
    for (let y = 14; y < 50; y++) for (let x = 14; x < 62; x++) inside.push(L[y * 128 + x]);
    expect(Math.max(...inside) - Math.min(...inside)).toBeLessThan(0.01);
  });
  it('paints a style of an older mixer that lacks later settings', () => {
    const old = { ...branded, amounts: { flat: 1, smooth: 2 } as Style['amounts'] };
    const { data } = paint(sampleContent(64), old, 1, 1);
    expect(new Set(data).size).toBeGreaterThan(4);
  });
  it('keeps the alpha of the content', () => {
    const content = sampleContent(32);
    for (let j = 3; j < content.data.length; j += 8) content.data[j] = 90;
    const out = paint(content, branded, 1, 1);
    for (let j = 3; j < content.data.length; j += 4) expect(out.data[j]).toBe(content.data[j]);
  });
  it('takes tiny and extreme shapes', () => {
    for (const [w, h] of [
      [1, 1],
      [64, 11],
      [11, 64],
      [3, 200],
    ]) {
      const out = paint(
        pictureOf(w, h, x => [x * 3, 80, 90]),
        hatched.style,
        1,
        1,
      );
      expect(out.data.length).toBe(w * h * 4);
    }
  });
  it('refuses bad input by name', () => {
    const content = sampleContent(16);
    expect(() => paint(content, branded, 1.5, 1)).toThrowError(RangeError, /1\.5/);
    expect(() => paint(content, branded, NaN, 1)).toThrowError(RangeError, /NaN/);
    expect(() => paint(content, branded, 1, 1, { mask: new Float32Array(3) })).toThrowError(RangeError, /mask of 3 values.*256/);
    expect(() => paint({ ...content, width: 17 }, branded, 1, 1)).toThrowError(/17 × 16/);
  });
  it('at many strengths from one painting gives the bytes of each painted by itself', () => {
    const content = sampleContent(96, 4);
    const own = { ...neutralStyle(), palette: paletteFromColours(BRAND) };
    own.amounts.flat = 0.8;
    own.amounts.hatch = 0.5;
    const never = [{ L: 0.5, a: 0.1, b: -0.1, radius: 0.1 }];
    const at = painting(content, own, 5, { never });
    // A rough one before leaves no trace in those that follow.
    expect(hashPixels(at(0.4, true))).not.toBe(hashPixels(content));
    for (const strength of [0.4, 1, 0.7, 0, 0.4]) {
      const alone = paint(content, own, strength, 5, { never });
      expect(hashPixels(at(strength)))
        .withContext(String(strength))
        .toBe(hashPixels(alone));
    }
  });
});
