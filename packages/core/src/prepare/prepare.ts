import { fromLabPlanes, toLabPlanes } from '../colour/oklab.ts';
import { cropPicture } from '../image/fit.ts';
import { checkPicture, type LabPlanes, type Picture } from '../image/types.ts';
import type { Box } from '../paint/options.ts';
import { cutOut } from './cutOut.ts';
import { fillHole } from './fill.ts';
import { recolourThing } from './recolourThing.ts';
import { drawStroke } from './strokes.ts';
import { treat } from './treat.ts';
import { NO_TREATMENT, PreparationError, type Preparation, type Stroke, type Treatment } from './types.ts';

/** A crop keeps at least this many pixels a side: less cannot be measured. */
export const LEAST_SIDE = 24;

/** Whether a preparation changes nothing. */
export function isIdle(p: Preparation): boolean {
  return (
    !p.paintOut?.length &&
    !p.recolour?.length &&
    !p.cutOut &&
    (!p.crop || isWhole(p.crop)) &&
    (!p.treatment || isUntreated(p.treatment))
  );
}

function isWhole({ x, y, width, height }: Box): boolean {
  return x <= 0 && y <= 0 && width >= 1 && height >= 1;
}

export function isUntreated(t: Treatment): boolean {
  return (Object.keys(NO_TREATMENT) as (keyof Treatment)[]).every(k => k === 'dotGap' || t[k] === 0);
}

/**
 * Makes a variant of a picture: paints out, recolours, cuts out, crops and treats, in that order. The picture given stays as it is. Throws
 * PreparationError naming the part that cannot be done, PictureError for a malformed picture.
 */
export function prepare(picture: Picture, preparation: Preparation, seed = 1): Picture {
  checkPicture(picture);
  const { paintOut, recolour, cutOut: cut, crop, treatment } = preparation;
  let made: Picture = picture;
  if (paintOut?.length || recolour?.length)
    made = inLab(picture, planes => {
      if (paintOut?.length) fillUnder(paintOut, planes, seed);
      for (const one of recolour ?? []) recolourThing(planes, one);
    });
  if (cut) made = cutOut(made, cut);
  if (crop && !isWhole(crop)) made = cropTo(made, crop);
  if (treatment && !isUntreated(treatment)) made = inLab(made, planes => treat(planes, treatment, seed));
  return made;
}

/** Changes a picture as it stands on white; what is transparent stays so, and no white is left in the colours of its rim. */
function inLab(picture: Picture, change: (planes: LabPlanes) => void): Picture {
  const planes = toLabPlanes(picture);
  change(planes);
  const made = fromLabPlanes(planes, picture);
  const { data } = made;
  for (let i = 0; i < data.length; i += 4) {
    const alpha = data[i + 3] / 255;
    if (alpha === 0 || alpha === 1) continue;
    for (let c = 0; c < 3; c++) data[i + c] = (data[i + c] - 255 * (1 - alpha)) / alpha;
  }
  return made;
}

function fillUnder(strokes: readonly Stroke[], planes: LabPlanes, seed: number): void {
  const hole = new Uint8Array(planes.width * planes.height);
  for (const s of strokes) drawStroke(hole, planes.width, planes.height, s, 1);
  if (!fillHole(planes, hole, seed))
    throw new PreparationError('paintOut', 'The brush covers so much that nothing is left to fill it from. Paint out less.');
}

function cropTo(picture: Picture, box: Box): Picture {
  const left = Math.max(0, Math.round(box.x * picture.width));
  const top = Math.max(0, Math.round(box.y * picture.height));
  const width = Math.min(picture.width, Math.round((box.x + box.width) * picture.width)) - left;
  const height = Math.min(picture.height, Math.round((box.y + box.height) * picture.height)) - top;
  if (width < LEAST_SIDE || height < LEAST_SIDE)
    throw new PreparationError(
      'crop',
      `The crop would leave ${Math.max(0, width)} × ${Math.max(0, height)} pixels; a picture needs at least ${LEAST_SIDE} a side. Draw it larger.`,
    );
  return cropPicture(picture, left, top, width, height);
}
