import { toLabPlanes } from '../colour/oklab.ts';
import { halve } from '../image/filter.ts';
import { checkPicture, PictureError, type Picture, type Plane } from '../image/types.ts';

const SCALES = 3;
const FLOOR = 0.0004;

interface Gradients {
  x: Float32Array;
  y: Float32Array;
}

function gradientsOf(plane: Plane): Gradients {
  const { width, height, data } = plane;
  const x = new Float32Array(data.length);
  const y = new Float32Array(data.length);
  for (let row = 1; row < height - 1; row++)
    for (let col = 1, i = row * width + 1; col < width - 1; col++, i++) {
      x[i] = data[i + 1] - data[i - 1];
      y[i] = data[i + width] - data[i - width];
    }
  return { x, y };
}

function pyramid(picture: Picture): Gradients[] {
  let plane: Plane = { width: picture.width, height: picture.height, data: toLabPlanes(picture).L };
  return Array.from({ length: SCALES }, () => {
    // The finest scale is texture, not structure: likeness starts one octave up.
    plane = halve(plane);
    return gradientsOf(plane);
  });
}

/**
 * How much of a picture's structure another keeps, 0–1: similarity of lightness gradients, size and direction alike, weighted by how strong
 * they are, over three octaves (gradient form of structural similarity; Wang et al. 2004, Xue et al. 2014). A reversed edge counts as an
 * edge kept, because a light line in a dark ground draws the same form. Throws PictureError when the sizes differ.
 */
export function likeness(original: Picture, painted: Picture): number {
  checkPicture(original);
  checkPicture(painted);
  if (original.width !== painted.width || original.height !== painted.height)
    throw new PictureError(
      `Got pictures of ${original.width} × ${original.height} and ${painted.width} × ${painted.height}; likeness needs equal sizes.`,
    );
  const p = pyramid(original);
  const q = pyramid(painted);
  let similar = 0;
  let weights = 0;
  for (let s = 0; s < SCALES; s++)
    for (let i = 0; i < p[s].x.length; i++) {
      const px = p[s].x[i];
      const py = p[s].y[i];
      const qx = q[s].x[i];
      const qy = q[s].y[i];
      const pp = px * px + py * py;
      const qq = qx * qx + qy * qy;
      const weight = Math.sqrt(Math.max(pp, qq));
      similar += weight * ((2 * Math.abs(px * qx + py * qy) + FLOOR) / (pp + qq + FLOOR));
      weights += weight;
    }
  return weights > 0 ? similar / weights : 1;
}

/** Likeness under which a subject is taken to drown in its look. */
const HOLDS = 0.55;

/**
 * The strengths (0–1, in tenths) at which a subject holds, from 0 up to the returned one, given the content and its painting at full
 * strength. 1 when it holds throughout.
 */
export function holdsUpTo(content: Picture, full: Picture): number {
  const mixed: Picture = { ...content, data: new Uint8ClampedArray(content.data.length) };
  for (let tenth = 10; tenth >= 1; tenth--) {
    for (let i = 0; i < mixed.data.length; i++) mixed.data[i] = content.data[i] + ((full.data[i] - content.data[i]) * tenth) / 10;
    if (likeness(content, mixed) >= HOLDS) return tenth / 10;
  }
  return 0;
}
