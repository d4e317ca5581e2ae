import type { LabPlanes, Picture } from '../image/types.ts';
import { measureColour } from './colour.ts';
import { measureLight } from './light.ts';
import { measureLine } from './line.ts';
import { measureSwatch } from './swatch.ts';
import { measureTexture } from './texture.ts';
import { MEASURE_VERSION, type Fingerprint } from './types.ts';
import { viewOf, viewOfPlanes, type View } from './view.ts';

/** The fingerprint of a picture of any size from 1 × 1 pixel; transparent parts count as white. Throws PictureError when malformed. */
export function measure(picture: Picture): Fingerprint {
  return fingerprintOf(viewOf(picture));
}

/** The fingerprint of small planes as they are, without a swatch, to be compared only with others of the same size. */
export function measurePlanes(planes: LabPlanes): Fingerprint {
  return fingerprintOf(viewOfPlanes(planes), false);
}

function fingerprintOf(view: View, swatch = true): Fingerprint {
  const colour = measureColour(view);
  return {
    measure: MEASURE_VERSION,
    swatch: swatch ? measureSwatch(view) : null,
    colour,
    light: measureLight(view, colour.palette),
    line: measureLine(view),
    texture: measureTexture(view),
  };
}
