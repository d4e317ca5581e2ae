import { blur } from '../image/filter.ts';
import type { LabPlanes } from '../image/types.ts';
import type { PaletteColour } from '../measure/types.ts';
import type { Assignment } from './assign.ts';

/**
 * Soft recolouring: every pixel moves by the shift of the colour areas near it in colour space, weighted, so shading inside an area
 * stays. `amount` 0 keeps the content's colours.
 */
export function shiftColours(content: LabPlanes, assignment: Assignment, palette: PaletteColour[], amount: number): LabPlanes {
  const { width, height } = content;
  const n = width * height;
  const { clusters, colourOf } = assignment;
  const k = clusters.length;
  const table = new Float32Array(k * 6);
  clusters.forEach((c, i) => {
    const p = palette[colourOf[i]];
    table.set([c.L, c.a, c.b, p.L - c.L, p.a - c.a, p.b - c.b], i * 6);
  });
  const L = new Float32Array(n);
  const a = new Float32Array(n);
  const b = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    const pL = content.L[i];
    const pa = content.a[i];
    const pb = content.b[i];
    let weights = 0;
    let sL = 0;
    let sa = 0;
    let sb = 0;
    for (let o = 0; o < table.length; o += 6) {
      const dL = pL - table[o];
      const da = pa - table[o + 1];
      const db = pb - table[o + 2];
      const d = dL * dL + 1.6 * (da * da + db * db) + 4e-4;
      const w = 1 / (d * d);
      weights += w;
      sL += w * table[o + 3];
      sa += w * table[o + 4];
      sb += w * table[o + 5];
    }
    const g = amount / weights;
    L[i] = pL + sL * g;
    a[i] = pa + sa * g;
    b[i] = pb + sb * g;
  }
  return { width, height, L, a, b };
}

/**
 * Flat colour areas with clean edges: coverage of each palette colour is smoothed, the strongest wins, and the winner's edge is
 * antialiased. `radius` in pixels says how small a scrap survives. Returns planes and the palette index of each pixel.
 */
export function layFlatColours(
  assignment: Assignment,
  palette: PaletteColour[],
  width: number,
  height: number,
  radius: number,
): { planes: LabPlanes; index: Uint8Array } {
  const n = width * height;
  const { labels, colourOf } = assignment;
  const used = [...new Set(colourOf)].sort((p, q) => p - q);
  const index = new Uint8Array(n);
  const strongest = new Float32Array(n).fill(-1);
  const cover = new Float32Array(n);
  for (const j of used) {
    for (let i = 0; i < n; i++) cover[i] = colourOf[labels[i]] === j ? 1 : 0;
    const soft = blur(cover, width, height, radius);
    for (let i = 0; i < n; i++)
      if (soft[i] > strongest[i]) {
        strongest[i] = soft[i];
        index[i] = j;
      }
  }
  const planes: LabPlanes = { width, height, L: new Float32Array(n), a: new Float32Array(n), b: new Float32Array(n) };
  for (let i = 0; i < n; i++) {
    const p = palette[index[i]];
    planes.L[i] = p.L;
    planes.a[i] = p.a;
    planes.b[i] = p.b;
  }
  planes.L = blur(planes.L, width, height, 0.55);
  planes.a = blur(planes.a, width, height, 0.55);
  planes.b = blur(planes.b, width, height, 0.55);
  return { planes, index };
}
