import { fromLabPlanes, toLabPlanes } from '../colour/oklab.ts';
import { blur } from '../image/filter.ts';
import { slopesOf } from '../image/tensor.ts';
import type { Picture } from '../image/types.ts';
import { clamp, smoothstep } from '../number/scalar.ts';
import type { Ticket } from '../ticket/types.ts';
import { smoothKeepingEdges } from './smooth.ts';

type Read = Ticket['contents'][number]['read'];

/** Lightness of a line and of the sheet, where only outlines are read. */
const INK = 0.22;
const SHEET = 0.96;
/** At strength 0 forms finer than this part of the longer side are gone. */
const LOOSEST = 0.022;

/**
 * A content picture as a press is to read it, of the same size: `areas` as it is, `tone` its lightness alone, `outline` only where it has
 * edges. `strength` 0–1 says how much of its form is kept: below 1 fine form goes first, large shapes stay.
 */
export function readContent(picture: Picture, read: Read, strength: number): Picture {
  if (read === 'areas' && strength >= 1) return picture;
  const { width, height } = picture;
  let planes = toLabPlanes(picture);
  const radius = (1 - strength) * LOOSEST * Math.max(width, height);
  if (radius >= 1) planes = smoothKeepingEdges(planes, radius);
  if (read === 'areas') return fromLabPlanes(planes, picture);
  planes.a.fill(0);
  planes.b.fill(0);
  if (read === 'outline') {
    const soft = Math.max(width, height) / 512;
    const size = slopesOf(blur(planes.L, width, height, soft), width, height).size;
    const wide = blur(size, width, height, soft);
    for (let i = 0; i < planes.L.length; i++)
      planes.L[i] = clamp(SHEET - (SHEET - INK) * smoothstep(0.012, 0.05, wide[i] * soft));
  }
  return fromLabPlanes(planes, picture);
}
