import { kernels, put, room, take, within, zeros } from '@zinc/kernels';
import { THICKNESSES } from './types.ts';

/** Longest run that is told apart; anything longer is a mass, not a line. */
const LONGEST = 48;
const LEAST_CONTRAST = 0.04;

/**
 * Thin dark and thin light lines by thickness. A pixel belongs to one when it stands out from its surroundings; its thickness is
 * h·v ÷ √(h² + v²) of the runs of such pixels along its row and column, which is exact for a straight line at any angle. Amounts are mean
 * contrasts over the whole picture. `around` is the picture blurred widely.
 */
export function measureThickness(
  L: Float32Array,
  around: Float32Array,
  width: number,
  height: number,
): { dark: number[]; light: number[]; width: number } {
  const n = width * height;
  const classes = THICKNESSES.length;
  const sums = within(() => {
    const [own, wide, bounds] = [L, around, Float32Array.from(THICKNESSES)].map(put);
    const at = zeros((classes * 2 + 2) * 2);
    const [kind, rows, since] = [room(n), room(n), room(width * 4)];
    kernels.thickness(own, wide, width, height, LEAST_CONTRAST, LONGEST, bounds, classes, at, kind, rows, since);
    return take(at, new Float64Array(classes * 2 + 2));
  });
  // A thick line has more pixels; divided by its thickness it counts by its length.
  const [weighted, total] = sums.subarray(classes * 2);
  const amounts = Array.from(sums.subarray(0, classes * 2), s => s / n);
  return { dark: amounts.slice(0, classes), light: amounts.slice(classes), width: total > 0 ? weighted / total : 0 };
}
