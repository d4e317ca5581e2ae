import { inBlocks, kernels, put, within } from '@zinc/kernels';
import type { LabPlanes } from '../image/types.ts';
import type { PaletteColour } from '../measure/types.ts';
import type { Assignment } from './assign.ts';

/** How much of its own unrest a photographed ground keeps. */
const GROUND_UNREST = 0.25;

/**
 * Soft recolouring: every pixel moves by the shift of the colour areas near it in colour space, weighted, so shading inside an area
 * stays. `amount` 0 keeps the content's colours. A ground that is one sheet (outside `mask`) takes the sheet's colour, and some of its own unrest.
 */
export function shiftColours(
  content: LabPlanes,
  assignment: Assignment,
  palette: PaletteColour[],
  amount: number,
  mask?: Float32Array,
): LabPlanes {
  const out = { ...content, L: content.L.slice(), a: content.a.slice(), b: content.b.slice() };
  if (amount <= 0) return out;
  const { clusters, colourOf, sheet } = assignment;
  const shifts = clusters.flatMap((c, i) => {
    const p = palette[colourOf[i]];
    return i === sheet ? [] : [c.L, c.a, c.b, p.L - c.L, p.a - c.a, p.b - c.b];
  });
  within(() => {
    const colours = put(Float32Array.from(shifts));
    inBlocks([out.L, out.a, out.b], [], ([L, a, b], count) =>
      kernels.shiftColours(L, a, b, count, colours, shifts.length / 6, amount),
    );
  });
  if (sheet < 0 || !mask) return out;
  const from = clusters[sheet];
  const to = palette[colourOf[sheet]];
  for (const k of ['L', 'a', 'b'] as const)
    for (let i = 0; i < mask.length; i++) {
      const own = content[k][i];
      const ground = own + (to[k] + (own - from[k]) * GROUND_UNREST - own) * amount;
      out[k][i] = ground + (out[k][i] - ground) * mask[i];
    }
  return out;
}
