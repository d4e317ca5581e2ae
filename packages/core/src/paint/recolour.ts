import { inBlocks, kernels, put, within } from '@zinc/kernels';
import type { LabPlanes } from '../image/types.ts';
import type { PaletteColour } from '../measure/types.ts';
import type { Assignment } from './assign.ts';

/**
 * Soft recolouring: every pixel moves by the shift of the colour areas near it in colour space, weighted, so shading inside an area
 * stays. `amount` 0 keeps the content's colours.
 */
export function shiftColours(content: LabPlanes, assignment: Assignment, palette: PaletteColour[], amount: number): LabPlanes {
  const { width, height } = content;
  if (amount <= 0) return { width, height, L: content.L.slice(), a: content.a.slice(), b: content.b.slice() };
  const { clusters, colourOf } = assignment;
  const table = new Float32Array(clusters.length * 6);
  clusters.forEach((c, i) => {
    const p = palette[colourOf[i]];
    table.set([c.L, c.a, c.b, p.L - c.L, p.a - c.a, p.b - c.b], i * 6);
  });
  const out = { width, height, L: content.L.slice(), a: content.a.slice(), b: content.b.slice() };
  within(() => {
    const colours = put(table);
    inBlocks([out.L, out.a, out.b], [], ([L, a, b], count) =>
      kernels.shiftColours(L, a, b, count, colours, clusters.length, amount),
    );
  });
  return out;
}
