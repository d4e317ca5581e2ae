import { fromLabPlanes, toLabPlanes } from '../colour/oklab.ts';
import { blur, blurWide } from '../image/filter.ts';
import { checkPicture, PictureError, type Picture } from '../image/types.ts';
import { clamp } from '../number/scalar.ts';
import { drawStroke } from '../prepare/strokes.ts';
import type { Stroke } from '../prepare/types.ts';
import { fillFromExamples } from './exemplar.ts';

/** A region that cannot be retouched, in words for people. */
export class RetouchError extends Error {
  override name = 'RetouchError';
}

/** How far a region fades out beyond its rim, in 512ths of the long side. */
const FEATHER = 7;
/** How steeply a patch comes in, octave by octave from the finest: marks over a narrow rim, tones over all of it (after Burt & Adelson 1983). */
const STEEP = [4, 2, 1];
/** A region that leaves less than this of a picture leaves nothing to work from. */
const LEAST_LEFT = 0.02;

/** The region that strokes cover, as an opaque picture: white inside, black outside. Throws RetouchError when they cover nothing or nearly all. */
export function drawMask(width: number, height: number, strokes: readonly Stroke[]): Picture {
  const inside = new Uint8Array(width * height);
  for (const stroke of strokes) drawStroke(inside, width, height, stroke, stroke.stays ? 0 : 1);
  checkRegion(inside);
  const data = new Uint8ClampedArray(width * height * 4);
  for (let i = 0; i < inside.length; i++) {
    data.fill(inside[i] * 255, i * 4, i * 4 + 3);
    data[i * 4 + 3] = 255;
  }
  return { width, height, data };
}

function checkRegion(inside: Uint8Array): void {
  const covered = inside.reduce((sum, v) => sum + v, 0);
  if (covered === 0) throw new RetouchError('No region is marked. Brush over what is to be changed.');
  if (covered > inside.length * (1 - LEAST_LEFT))
    throw new RetouchError('The region covers the whole picture. For that, order another take; or brush over a part only.');
}

/**
 * How much of a patch shows at each pixel, 0–1: 1 in the region, falling smoothly to 0 over a rim beyond it. Where it is 0 a retouch changes
 * nothing. The region is what is lighter than mid grey in `mask`. Throws RetouchError when it holds nothing or nearly all.
 */
export function featherOf(mask: Picture): Float32Array {
  const { width, height, data } = mask;
  const inside = new Uint8Array(width * height);
  for (let i = 0; i < inside.length; i++) inside[i] = data[i * 4] > 127 ? 1 : 0;
  checkRegion(inside);
  const rim = featherWidth(width, height);
  const wide = Float32Array.from(inside);
  const near = blur(wide, width, height, rim / 2);
  // Beyond the region a blurred edge falls from a half to nothing within one rim.
  return near.map((v, i) => (inside[i] ? 1 : smooth(clamp((v - 0.03) / 0.47, 0, 1))));
}

const featherWidth = (width: number, height: number): number => Math.max(2, (FEATHER * Math.max(width, height)) / 512);
const smooth = (t: number): number => t * t * (3 - 2 * t);

/** Takes what lies in a region out, and goes on with what is around it. Throws RetouchError or PictureError. */
export function removeRegion(picture: Picture, mask: Picture, seed: number): Picture {
  checkPair(picture, mask);
  const shown = featherOf(mask);
  const planes = toLabPlanes(picture);
  const hole = Uint8Array.from(shown, v => (v > 0 ? 1 : 0));
  if (!fillFromExamples(planes, hole, seed))
    throw new RetouchError('The region leaves too little of the picture to fill it from. Brush over less.');
  return laidIn(picture, fromLabPlanes(planes, picture), shown);
}

/**
 * Lays a region of another painting of the same size into a picture. Each octave of their difference fades over a rim as wide as its marks
 * are, so that neither tones nor lines show a seam. Throws RetouchError or PictureError.
 */
export function paintInto(picture: Picture, again: Picture, mask: Picture): Picture {
  checkPair(picture, mask);
  checkPair(picture, again);
  const { width, height } = picture;
  const shown = featherOf(mask);
  const from = toLabPlanes(picture);
  const to = toLabPlanes(again);
  const rim = featherWidth(width, height);
  const shares = STEEP.map(k => shown.map(v => clamp((v - 0.5) * k + 0.5, 0, 1)));
  for (const plane of ['L', 'a', 'b'] as const) {
    const own = from[plane];
    let rest: Float32Array = Float32Array.from(to[plane], (v, i) => v - own[i]);
    for (const [k, share] of shares.entries()) {
      const coarse = k < shares.length - 1 ? blurWide(rest, width, height, (rim * 2 ** k) / 4) : null;
      for (let i = 0; i < own.length; i++) own[i] += share[i] * (rest[i] - (coarse ? coarse[i] : 0));
      if (coarse) rest = coarse;
    }
  }
  const hard = Float32Array.from(shown, v => (v > 0 ? 1 : 0));
  return laidIn(picture, fromLabPlanes(from, picture), hard);
}

function checkPair(picture: Picture, other: Picture): void {
  checkPicture(picture);
  checkPicture(other);
  if (picture.width !== other.width || picture.height !== other.height)
    throw new PictureError(
      `Got pictures of ${picture.width} × ${picture.height} and ${other.width} × ${other.height}; a retouch needs equal sizes.`,
    );
}

/** One picture over another as far as `shown` says; where it is 0 the bytes stay as they are. */
function laidIn(under: Picture, over: Picture, shown: Float32Array): Picture {
  const data = new Uint8ClampedArray(under.data);
  for (let i = 0; i < shown.length; i++) {
    const t = shown[i];
    if (t === 0) continue;
    for (let c = i * 4; c < i * 4 + 3; c++) data[c] = Math.round(under.data[c] + (over.data[c] - under.data[c]) * t);
  }
  return { ...under, data };
}
