import { blur } from '../image/filter.ts';

/** Larger of the two values `reach` places before and after each place, along rows or columns; at the border the edge value counts. */
function widen(from: Float32Array, to: Float32Array, width: number, height: number, reach: number, rows: boolean): void {
  if (rows)
    for (let y = 0; y < height; y++) {
      const o = y * width;
      for (let x = 0; x < width; x++) {
        const p = from[o + (x < reach ? 0 : x - reach)];
        const q = from[o + (x + reach < width ? x + reach : width - 1)];
        to[o + x] = p > q ? p : q;
      }
    }
  else
    for (let y = 0; y < height; y++) {
      const o = y * width;
      const up = (y < reach ? 0 : y - reach) * width;
      const down = (y + reach < height ? y + reach : height - 1) * width;
      for (let x = 0; x < width; x++) {
        const p = from[up + x];
        const q = from[down + x];
        to[o + x] = p > q ? p : q;
      }
    }
}

/** Steps that build a window of 2r + 1 from a single place: each widens what is there by its reach, and leaves no gap. */
const STEPS: Record<number, number[]> = { 1: [1], 2: [1, 1], 3: [1, 2], 5: [1, 2, 2] };

/** Running maximum (or minimum) over a (2r+1)² window, separable, by a few widening steps a direction. */
function extreme(plane: Float32Array, width: number, height: number, radius: number, maximum: boolean): Float32Array {
  const n = plane.length;
  let now = new Float32Array(n);
  let next = new Float32Array(n);
  const sign = maximum ? 1 : -1;
  for (let i = 0; i < n; i++) now[i] = sign * plane[i];
  for (const rows of [true, false])
    for (const [k, reach] of STEPS[radius].entries()) {
      widen(now, next, width, height, reach, rows);
      // The first step leaves the middle out; later ones cover it.
      if (k === 0) for (let i = 0; i < n; i++) if (now[i] > next[i]) next[i] = now[i];
      [now, next] = [next, now];
    }
  if (!maximum) for (let i = 0; i < n; i++) now[i] = -now[i];
  return now;
}

const RADII = [1, 2, 3, 5];

/**
 * Thin dark and thin light lines by granulometry: what a closing (or opening) of growing radius fills. Returns mean amounts and the mean
 * width over both kinds, from the amounts that each radius adds.
 */
export function measureThinLines(L: Float32Array, width: number, height: number): { dark: number; light: number; width: number } {
  const base = blur(L, width, height, 0.6);
  const n = base.length;
  const dark: number[] = [];
  const light: number[] = [];
  for (const r of RADII) {
    const closed = extreme(extreme(base, width, height, r, true), width, height, r, false);
    const opened = extreme(extreme(base, width, height, r, false), width, height, r, true);
    let d = 0;
    let l = 0;
    for (let i = 0; i < n; i++) {
      const up = closed[i] - base[i] - 0.04;
      const down = base[i] - opened[i] - 0.04;
      if (up > 0) d += up;
      if (down > 0) l += down;
    }
    dark.push(d / n);
    light.push(l / n);
  }
  let weighted = 0;
  let total = 1e-9;
  RADII.forEach((r, i) => {
    // A radius fills lines up to 2r wide; what it adds over the one before lies between the two widths.
    const added = Math.max(0, dark[i] - (dark[i - 1] ?? 0)) + Math.max(0, light[i] - (light[i - 1] ?? 0));
    const before = i === 0 ? 1 : 2 * RADII[i - 1];
    weighted += (added / r) * ((before + 2 * r) / 2);
    total += added / r;
  });
  return { dark: dark[2], light: light[2], width: weighted / total };
}
