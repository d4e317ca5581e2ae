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
  if (amount <= 0) return { width, height, L: content.L.slice(), a: content.a.slice(), b: content.b.slice() };
  const { clusters, colourOf } = assignment;
  const table = new Float32Array(clusters.length * 6);
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
