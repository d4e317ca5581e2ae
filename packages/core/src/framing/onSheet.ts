import { fromLabPlanes } from '../colour/oklab.ts';
import type { Lab, Picture } from '../image/types.ts';
import { clamp } from '../number/scalar.ts';
import { avoidColours } from '../paint/never.ts';
import { windowOf, type Framing } from './types.ts';

/**
 * A picture of a size under a framing: its worked part is asked for at the size it has on the sheet, and laid between the margins, its
 * corners rounded. `never` keeps the sheet's own colour out of what must not appear. Without margins or corners what was asked for comes back as it is.
 */
export function onSheet(
  framing: Framing | null | undefined,
  width: number,
  height: number,
  never: readonly (Lab & { radius: number })[] | undefined,
  worked: (width: number, height: number) => Picture,
): Picture {
  const window = windowOf(framing, width, height);
  const inside = worked(window.width, window.height);
  if (!framing?.sheet || (window.width === width && window.height === height && framing.corner === 0)) return inside;
  const [colour] = avoidColours([{ ...framing.sheet, share: 1 }], [...(never ?? [])]);
  const out = sheetOf(colour, width, height);
  const radius = framing.corner * Math.min(window.width, window.height);
  for (let y = 0; y < window.height; y++)
    for (let x = 0; x < window.width; x++) {
      const from = (y * window.width + x) * 4;
      const to = ((y + window.top) * width + x + window.left) * 4;
      const cover = coverOf(x + 0.5, y + 0.5, window.width, window.height, radius);
      if (cover === 1) for (let k = 0; k < 4; k++) out.data[to + k] = inside.data[from + k];
      else if (cover > 0) for (let k = 0; k < 4; k++) out.data[to + k] += (inside.data[from + k] - out.data[to + k]) * cover;
    }
  return out;
}

function sheetOf({ L, a, b }: Lab, width: number, height: number): Picture {
  const pixel = fromLabPlanes({
    width: 1,
    height: 1,
    L: Float32Array.of(L),
    a: Float32Array.of(a),
    b: Float32Array.of(b),
  }).data;
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < data.length; i += 4) data.set(pixel, i);
  return { width, height, data };
}

/** How far a pixel lies within a rectangle with round corners, 0–1. */
function coverOf(x: number, y: number, width: number, height: number, radius: number): number {
  const dx = radius - Math.min(x, width - x);
  const dy = radius - Math.min(y, height - y);
  return dx <= 0 || dy <= 0 ? 1 : clamp(radius + 0.5 - Math.sqrt(dx * dx + dy * dy));
}
