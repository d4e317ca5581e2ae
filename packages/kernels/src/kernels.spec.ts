import { readFile } from 'node:fs/promises';
import { compileKernels } from '../build.mjs';
import { floatsAt, inBlocks, interpolateAt, kernels, placesAlong, plane, put, room, take, within, zeros } from './index.ts';
import * as reference from './reference.ts';

let state = 1;
/** Repeatable numbers between 0 and 1. */
function next(): number {
  state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
  return state / 4294967296;
}
const noise = (n: number): Float32Array => Float32Array.from({ length: n }, next);
const worst = (p: ArrayLike<number>, q: ArrayLike<number>): number =>
  Array.from(p).reduce((most, v, i) => Math.max(most, Math.abs(v - q[i])), 0);
/** Sizes whose rows are not whole fours, and very small ones. */
const SIZES: [number, number][] = [
  [37, 23],
  [16, 16],
  [5, 9],
  [2, 3],
  [1, 7],
  [64, 3],
];

describe('kernels', () => {
  beforeEach(() => (state = 7));

  it('are compiled from the sources as they stand', async () => {
    expect(await readFile(new URL('./wasm.ts', import.meta.url), 'utf8')).toBe(await compileKernels());
  }, 60_000);

  for (const [w, h] of SIZES) {
    it(`blur ${w} × ${h} as the reference does`, () => {
      const p = noise(w * h);
      within(() => {
        const at = put(p);
        kernels.tapBlur(at, plane(w * h), w, h, put(Float32Array.of(0.5, 0.15, 0.1)), 2);
        expect(worst(floatsAt(at, w * h), reference.tapBlur(p, w, h, [0.5, 0.15, 0.1]))).toBeLessThan(1e-5);
      });
      within(() => {
        const at = put(p);
        kernels.boxBlur(at, plane(w * h), plane(w), w, h, 4, 3);
        expect(worst(floatsAt(at, w * h), reference.boxBlur(p, w, h, 4, 3))).toBeLessThan(1e-5);
      });
    });

    it(`read ${w} × ${h} between pixels as the reference does`, () => {
      const p = noise(w * h);
      const out = within(() => {
        const to = plane(50 * 31);
        interpolateAt(put(p), w, h, placesAlong(w, 50, 0.3), placesAlong(h, 31), to);
        return take(to, new Float32Array(50 * 31));
      });
      const wanted = out.map((_, i) => {
        const x = (((i % 50) + 0.5) * w) / 50 - 0.5 + 0.3;
        return reference.sample(p, w, h, x, ((((i / 50) | 0) + 0.5) * h) / 31 - 0.5);
      });
      expect(worst(out, wanted)).toBeLessThan(1e-5);
    });

    it(`find the slopes of ${w} × ${h} as the reference does`, () => {
      const p = noise(w * h);
      const wanted = reference.slopes(p, w, h);
      within(() => {
        const [x, y, size] = [plane(w * h), plane(w * h), plane(w * h)];
        kernels.slopes(put(p), w, h, x, y, size);
        expect(worst(floatsAt(x, w * h), wanted.x)).toBeLessThan(1e-6);
        expect(worst(floatsAt(y, w * h), wanted.y)).toBeLessThan(1e-6);
        const length = wanted.x.map((v, i) => Math.sqrt(v * v + wanted.y[i] ** 2));
        expect(worst(floatsAt(size, w * h), length)).toBeLessThan(1e-6);
      });
    });

    it(`smooth ${w} × ${h} as the reference does`, () => {
      const planes = [noise(w * h), noise(w * h), noise(w * h)].map(p => p.map(v => 0.4 + 0.1 * v));
      const [r, e] = [5, 3];
      within(() => {
        const at = planes.map(put);
        const padded = (w + 2 * r) * (h + 2 * r);
        kernels.smoothKeepingEdges(at[0], at[1], at[2], w, h, r, e, plane(15 * (padded + 8) + (2 * r + 8) * (w + 2 * r)));
        for (let i = 0; i < w * h; i++) {
          const wanted = reference.smoothed(planes, w, h, r, e, i % w, (i / w) | 0);
          expect(
            worst(
              [0, 1, 2].map(k => floatsAt(at[k] + 4 * i, 1)[0]),
              wanted,
            ),
          ).toBeLessThan(2e-4);
        }
      });
    });
  }

  it('find direction and coherence of the structure tensor', () => {
    const directions = [0.1, 0.9, 1.5, 2.2, 3];
    within(() => {
      const tensor = (f: (t: number) => number): number => put(Float32Array.from(directions, f));
      const e = tensor(t => 0.02 * Math.cos(t) ** 2);
      const f = tensor(t => 0.02 * Math.cos(t) * Math.sin(t));
      const g = tensor(t => 0.02 * Math.sin(t) ** 2);
      kernels.eigen(e, f, g, directions.length);
      directions.forEach((t, i) => {
        // Lines run at right angles to the slopes, and either way along is right.
        const along = floatsAt(e, 5)[i] * -Math.sin(t) + floatsAt(f, 5)[i] * Math.cos(t);
        expect(Math.abs(along)).toBeCloseTo(1, 4);
        expect(floatsAt(g, 5)[i]).toBeCloseTo(1, 4);
      });
    });
    within(() => {
      const [e, f, g] = [put(Float32Array.of(0, 0.01)), put(Float32Array.of(0, 0)), put(Float32Array.of(0, 0.01))];
      kernels.eigen(e, f, g, 2);
      expect([...floatsAt(g, 2)]).toEqual([0, 0]);
      expect(floatsAt(e, 2).every(v => Number.isFinite(v))).toBeTrue();
    });
  });

  it('turn doubled angles back into tangents', () => {
    const angles = [0, 0.4, 1.2, -0.7, -1.5];
    within(() => {
      const [x, y] = [put(Float32Array.from(angles, Math.cos)), put(Float32Array.from(angles, Math.sin))];
      const [c, s] = [plane(5), plane(5)];
      kernels.doubleAngles(x, y, 5, c, s);
      kernels.halveAngles(c, s, 5);
      angles.forEach((t, i) => {
        const along = floatsAt(c, 5)[i] * Math.cos(t) + floatsAt(s, 5)[i] * Math.sin(t);
        expect(Math.abs(along)).toBeCloseTo(1, 5);
      });
    });
  });

  it('shift colours as the reference does', () => {
    const table = Array.from({ length: 5 }, () => Array.from({ length: 6 }, () => next() - 0.3));
    const planes = [noise(11), noise(11), noise(11)];
    const before = planes.map(p => p.slice());
    within(() => {
      const at = put(Float32Array.from(table.flat()));
      inBlocks(planes, [], ([L, a, b], n) => kernels.shiftColours(L, a, b, n, at, 5, 0.7));
    });
    for (let i = 0; i < 11; i++) {
      const own = before.map(p => p[i]);
      expect(
        worst(
          planes.map(p => p[i]),
          reference.shifted(own, table, 0.7),
        ),
      ).toBeLessThan(1e-4);
    }
  });

  it('mark segments as the reference does, and keep the larger cover', () => {
    const segments = [
      [3, 4, 1.5, 20, 9, 0.4],
      [20, 9, 0.4, 21, 30, 3],
      [-4, 30, 2, 40, -2, 2],
    ];
    within(() => {
      const cover = zeros(33 * 31);
      for (const [x0, y0, r0, x1, y1, r1] of segments) kernels.segment(cover, 33, 31, x0, y0, r0, x1, y1, r1);
      const wanted = Array.from({ length: 33 * 31 }, (_, i) =>
        Math.max(...segments.map(s => reference.segmentCover(i % 33, (i / 33) | 0, s))),
      );
      expect(worst(floatsAt(cover, 33 * 31), wanted)).toBeLessThan(1e-4);
    });
  });

  it('lay a stroke as the reference does, and nothing outside its area', () => {
    const [w, h] = [45, 40];
    const hairs = noise(256).map(v => v - 0.5);
    const s = { radius: 6, tone: 0.2, hairs, perHair: 1.1, bristle: 0.6, streak: 0.1, relief: 0.7 };
    const base = noise(w * h);
    const points: [number, number, number, number] = [10.3, 8.1, 30.6, 27.4];
    const wanted = reference.strokeOn(base, w, points, s);
    const lay = (index: Uint8Array | null): Float32Array =>
      within(() => {
        const [L, a, b] = [base, base, base].map(put);
        kernels.loadBrush(L, a, b, w, h, index ? put(index) : 0, put(hairs), 0, s.streak, s.bristle, s.relief, 0);
        const form = Float32Array.of(s.radius, s.tone, 0, 0, s.perHair, 1, points[0], points[2], points[1], points[3]);
        kernels.stroke(put(form), 2, 2, 0, 3);
        return take(L, new Float32Array(w * h));
      });
    const laid = lay(null);
    // A pixel whose edge falls between two hairs may take either in 32 and in 64 bits.
    const off = laid.filter((v, i) => Math.abs(v - wanted[i]) > 2e-3).length;
    expect(off).toBeLessThan(12);
    expect(laid.filter((v, i) => v !== base[i]).length).toBeGreaterThan(200);
    const half = lay(Uint8Array.from({ length: w * h }, (_, i) => (i % w < 20 ? 3 : 1)));
    half.forEach((v, i) => expect(v).toBe(i % w < 20 ? laid[i] : base[i]));
  });

  it('find the power of frequencies as the definition says', () => {
    const n = 16;
    const tile = noise(n * n);
    const window = Float32Array.from({ length: n }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / n));
    const turns = Float32Array.from({ length: n }, (_, k) =>
      k < n / 2 ? Math.cos((-2 * Math.PI * k) / n) : Math.sin((-2 * Math.PI * (k - n / 2)) / n),
    );
    within(() => {
      const [re, im] = [plane(n * n), plane(n * n)];
      kernels.spectrum(put(tile), n, 0, 0, n, put(window), put(turns), 0, re, im);
      for (const [fx, fy] of [
        [0, 1],
        [3, 0],
        [5, 7],
        [15, 2],
      ])
        expect(floatsAt(re, n * n)[fy * n + fx]).toBeCloseTo(reference.powerAt(tile, n, window, fx, fy), 3);
    });
  });

  it('name the nearest colour of every pixel, to the width of a cell', () => {
    const colours = Array.from({ length: 6 }, () => [next(), next() * 0.4 - 0.2, next() * 0.4 - 0.2]);
    const n = 300;
    const planes = [noise(n), noise(n).map(v => v * 0.4 - 0.2), noise(n).map(v => v * 0.4 - 0.2)];
    const away = (i: number, c: number[]): number =>
      Math.sqrt((planes[0][i] - c[0]) ** 2 + 1.6 * ((planes[1][i] - c[1]) ** 2 + (planes[2][i] - c[2]) ** 2));
    within(() => {
      const [L, a, b] = planes.map(put);
      const labels = room(n);
      const known = zeros((48 * 48 * 48) / 4);
      kernels.labelPixels(L, a, b, n, put(Float32Array.from(colours.flat())), 6, 1.6, 48, -0.34, 48 / 0.68, known, labels);
      take(labels, new Uint8Array(n)).forEach((label, i) =>
        expect(away(i, colours[label])).toBeLessThan(Math.min(...colours.map(c => away(i, c))) + 0.05),
      );
    });
  });

  it('let the strongest cover win, and share a pixel between the two strongest', () => {
    const [w, h, W, H] = [6, 4, 24, 16];
    const covers = [Float32Array.from({ length: w * h }, (_, i) => 1 - (i % w) / 5), new Float32Array(w * h)];
    covers[1] = covers[0].map(v => 1 - v);
    within(() => {
      const at = put(Float32Array.from(covers.flatMap(c => [...c])));
      const [first, second, slot] = [put(new Float32Array(w * h).fill(-1)), zeros(w * h), room(w * h)];
      covers.forEach((_, k) => kernels.contend(at + k * w * h * 4, w * h, first, second, slot, k));
      const slots = take(slot, new Uint8Array(w * h));
      slots.forEach((k, i) => expect(k).toBe(i % w < 3 ? 0 : 1));
      floatsAt(first, w * h).forEach((v, i) => expect(v).toBeCloseTo(Math.max(covers[0][i], covers[1][i]), 6));
      floatsAt(second, w * h).forEach((v, i) => expect(v).toBeCloseTo(Math.min(covers[0][i], covers[1][i]), 6));
      const [across, down] = [placesAlong(w, W), placesAlong(h, H)];
      const [left, part, top, low] = [across.first, across.part, down.first, down.part].map(put);
      const [L, a, b, index] = [plane(W * H), plane(W * H), plane(W * H), room(W * H)];
      const colours = put(Float32Array.of(0.2, 0, 0, 0.8, 0, 0));
      kernels.drawAreas(at, w * h * 4, slot, colours, w, h, left, part, W, top, low, H, 3, L, a, b, index);
      const row = [...floatsAt(L, W)];
      expect(row[0]).toBeCloseTo(0.2, 5);
      expect(row[W - 1]).toBeCloseTo(0.8, 5);
      row.forEach((v, x) => expect(x === 0 || v >= row[x - 1] - 1e-6).toBeTrue());
    });
  });

  it('give back the room that was made, also after an error', () => {
    const before = within(() => plane(4));
    expect(() =>
      within(() => {
        plane(100_000);
        throw new Error('on purpose');
      }),
    ).toThrowError('on purpose');
    expect(within(() => plane(4))).toBe(before);
  });

  it('keep what was put before the memory grew', () => {
    within(() => {
      const at = put(Float32Array.of(1, 2, 3));
      plane(12_000_000);
      expect([...take(at, new Float32Array(3))]).toEqual([1, 2, 3]);
    });
  });
});
