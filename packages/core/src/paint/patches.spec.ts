import { measure } from '../measure/measure.ts';
import { readSwatch, SWATCH_SIDE, type Swatch } from '../measure/swatch.ts';
import { mix } from '../mix/mix.ts';
import type { Picture } from '../image/types.ts';
import { randomFor } from '../number/random.ts';
import { layPatches } from './patches.ts';
import { emptyPlanes } from './planes.ts';
import { quilt } from './quilt.ts';

/** A sheet with soft strokes in one direction (radians), all over it. */
function brushed(angle: number, strength = 26): Picture {
  const side = 256;
  const random = randomFor(3, 'strokes');
  const data = new Uint8ClampedArray(side * side * 4).fill(255);
  const rows = Array.from({ length: 800 }, () => random() - 0.5);
  for (let y = 0; y < side; y++)
    for (let x = 0; x < side; x++) {
      const across = -x * Math.sin(angle) + y * Math.cos(angle) + 400;
      const v = 140 + strength * (rows[Math.floor(across / 3)] + 0.4 * Math.sin(across * 0.7));
      data.set([v, v * 0.9, v * 0.8], (y * side + x) * 4);
    }
  return { width: side, height: side, data };
}
/** Change along a row ÷ change across rows. */
function grainOf(plane: Float32Array, side: number): number {
  let along = 0;
  let across = 0;
  for (let y = 0; y + 1 < side; y++)
    for (let x = 0; x + 1 < side; x++) {
      along += Math.abs(plane[y * side + x + 1] - plane[y * side + x]);
      across += Math.abs(plane[(y + 1) * side + x] - plane[y * side + x]);
    }
  return along / across;
}
const facets = ['colour', 'light', 'line', 'texture'] as const;

describe('surface by example', () => {
  it('is kept turned so that its strokes run along the rows, whatever their direction', () => {
    for (const angle of [0, 0.6, 1.4, -0.9]) {
      const swatch = measure(brushed(angle)).swatch!;
      expect(swatch.rms).toBeGreaterThan(0.01);
      const values = readSwatch(swatch);
      expect(values.length).toBe(SWATCH_SIDE * SWATCH_SIDE);
      expect(grainOf(values, SWATCH_SIDE)).withContext(String(angle)).toBeLessThan(0.6);
    }
  });

  it('is not kept of a calm picture', () => {
    expect(measure(brushed(0.4, 0)).swatch).toBeNull();
  });

  it('refuses a swatch of another size', () => {
    expect(() => readSwatch({ rms: 0.02, data: btoa('short') })).toThrowError(/5 values; wanted 2304/);
  });

  it('is quilted larger without leaving the range of its values, the same for the same seed', () => {
    const values = readSwatch(measure(brushed(0.3)).swatch!);
    const { tile, size } = quilt(values, SWATCH_SIDE, 8, 5);
    expect(size).toBeGreaterThan(2 * SWATCH_SIDE);
    const known = new Set(values);
    expect(tile.every(v => known.has(v))).toBeTrue();
    expect(tile).toEqual(quilt(values, SWATCH_SIDE, 8, 5).tile);
    expect(tile).not.toEqual(quilt(values, SWATCH_SIDE, 8, 6).tile);
    // Cuts do not tear the strokes apart.
    expect(grainOf(tile, size)).toBeLessThan(0.75);
  });

  it('is laid in the direction of the marks, with the contrast asked for', () => {
    const swatch = measure(brushed(0.3)).swatch!;
    const side = 200;
    const lay = (tx: number, ty: number): Float32Array => {
      const planes = emptyPlanes(side, side);
      planes.L.fill(0.5);
      const field = { width: 1, height: 1, tx: Float32Array.of(tx), ty: Float32Array.of(ty) };
      layPatches(planes, field, swatch, 0.04, null, 1, 1, 9);
      return planes.L;
    };
    const flat = lay(1, 0);
    const upright = lay(0, 1);
    expect(grainOf(flat, side)).toBeLessThan(0.75);
    expect(1 / grainOf(upright, side)).toBeLessThan(0.75);
    const rms = Math.sqrt(flat.reduce((sum, v) => sum + (v - 0.5) ** 2, 0) / flat.length);
    expect(rms).toBeGreaterThan(0.025);
    expect(rms).toBeLessThan(0.055);
  });

  it('leaves places alone that it is told to', () => {
    const swatch: Swatch = measure(brushed(0)).swatch!;
    const planes = emptyPlanes(60, 60);
    planes.L.fill(0.5);
    const where = Float32Array.from({ length: 3600 }, (_, i) => (i % 60 < 30 ? 0 : 1));
    layPatches(planes, { width: 1, height: 1, tx: Float32Array.of(1), ty: Float32Array.of(0) }, swatch, 0.05, where, 1, 1, 2);
    planes.L.forEach((v, i) => (i % 60 < 30 ? expect(v).toBe(0.5) : undefined));
    expect(planes.L.some(v => Math.abs(v - 0.5) > 0.02)).toBeTrue();
  });

  it('comes into a mix from the source with most of it, and only with its texture', () => {
    const fine = measure(brushed(0.2));
    const other = measure(brushed(1.1, 12));
    const sources = (a: number, b: number) => [
      { parts: a, facets, fingerprint: fine },
      { parts: b, facets, fingerprint: other },
    ];
    expect(mix(sources(3, 1)).style.swatch).toBe(fine.swatch);
    const colours = mix([{ parts: 1, facets: ['colour', 'light'], fingerprint: fine }]);
    expect(colours.style.swatch).toBeNull();
    expect(colours.style.amounts.patch).toBe(0);
  });
});
