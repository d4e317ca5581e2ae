import { kernels, put, take, within } from '@zinc/kernels';
import { toLabPlanes } from '../colour/oklab.ts';
import { blurWide, halve } from '../image/filter.ts';
import { resizePicture } from '../image/resize.ts';
import { measureFlow, slopesOf, type Flow, type Slopes } from '../image/tensor.ts';
import { checkPicture, type LabPlanes, type Picture, type Plane } from '../image/types.ts';

const LONG_SIDE = 512;

/** What all facets look at: one set of planes, slopes, directions and a pyramid, made once a picture. */
export interface View {
  planes: LabPlanes;
  slopes: Slopes;
  /** Half size, as are `wide` and `pyramid[1]`. */
  flow: Flow;
  /** Lightness blurred over 14 pixels, full size. */
  around: Float32Array;
  /** Lightness and, from half size on, each coarser octave. */
  pyramid: Plane[];
  /** Slopes blurred over 6 pixels, full size: how much goes on around each place. */
  unrest: Float32Array;
  /** Weight of each pixel in the palette, 0–1. */
  inkWeights: Float32Array;
}

/** The copy that is measured: its long side is at most 512, so that size does not matter. Throws PictureError on a malformed picture. */
export function copyOf(picture: Picture): Picture {
  checkPicture(picture);
  const { width, height } = picture;
  const long = Math.max(width, height);
  if (long <= LONG_SIDE) return picture;
  const side = (s: number): number => Math.max(1, Math.round((s * LONG_SIDE) / long));
  return resizePicture(picture, side(width), side(height));
}

/** Makes the view of a picture. Throws PictureError on a malformed one. */
export function viewOf(picture: Picture): View {
  return viewOfPlanes(toLabPlanes(copyOf(picture)));
}

/** Makes the view of planes as they are; for figures that do not depend on size their long side must be 512. */
export function viewOfPlanes(planes: LabPlanes): View {
  const { width, height, L } = planes;
  const slopes = slopesOf(L, width, height);
  const unrest = blurWide(slopes.size, width, height, 6);
  const pyramid: Plane[] = [{ width, height, data: L }];
  for (let o = 0; o < 6; o++) {
    const last = pyramid[o];
    if (Math.min(last.width, last.height) < 4) break;
    pyramid.push(halve(last));
  }
  return {
    planes,
    slopes,
    flow: measureFlow(slopes, 3),
    around: blurWide(L, width, height, 14),
    pyramid,
    unrest,
    inkWeights: inkWeights(slopes, unrest),
  };
}

/**
 * How far each pixel is an ink and not a mixture of two. An antialiased pixel has more slope than its surroundings (comparing with the local
 * mean spares textured inks); in a flat picture a gentle slope is a shadow, which is no ink either.
 */
function inkWeights({ size }: Slopes, around: Float32Array): Float32Array {
  return within(() => {
    const fine = put(size);
    const share = kernels.countBelow(fine, size.length, 0.006) / size.length;
    const soften = share <= 0.35 ? 0 : share >= 0.55 ? 1 : (share - 0.35) / 0.2;
    kernels.inkWeights(fine, put(around), size.length, soften);
    return take(fine, new Float32Array(size.length));
  });
}
