import { blur } from '../image/filter.ts';

/** Running maximum (or minimum) over a (2r+1)² window, separable. */
function extreme(plane: Float32Array, width: number, height: number, radius: number, maximum: boolean): Float32Array {
  const sign = maximum ? 1 : -1;
  const rows = new Float32Array(plane.length);
  const out = new Float32Array(plane.length);
  for (let y = 0; y < height; y++) {
    const o = y * width;
    for (let x = 0; x < width; x++) {
      let m = -Infinity;
      const to = Math.min(width - 1, x + radius);
      for (let q = Math.max(0, x - radius); q <= to; q++) {
        const v = sign * plane[o + q];
        if (v > m) m = v;
      }
      rows[o + x] = m;
    }
  }
  for (let y = 0; y < height; y++) {
    const from = Math.max(0, y - radius);
    const to = Math.min(height - 1, y + radius);
    const o = y * width;
    out.set(rows.subarray(from * width, from * width + width), o);
    for (let q = from + 1; q <= to; q++) {
      const r = q * width;
      for (let x = 0; x < width; x++) if (rows[r + x] > out[o + x]) out[o + x] = rows[r + x];
    }
  }
  if (!maximum) for (let i = 0; i < out.length; i++) out[i] = -out[i];
  return out;
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
