import { framingOf, withoutMargins } from '../framing/measureFraming.ts';
import type { LabPlanes, Picture } from '../image/types.ts';
import { measureColour } from './colour.ts';
import { measureLight } from './light.ts';
import { measureLine } from './line.ts';
import { measureSwatch } from './swatch.ts';
import { measureTexture } from './texture.ts';
import { MEASURE_VERSION, type Fingerprint } from './types.ts';
import { copyOf, viewOf, viewOfPlanes, type View } from './view.ts';

/** The fingerprint of a picture of any size from 1 × 1 pixel; transparent parts count as white. Throws PictureError when malformed. */
export function measure(picture: Picture): Fingerprint {
  // Nearly always there are no margins, and one copy serves for all.
  const framing = framingOf(copyOf(picture));
  const view = viewOf(withoutMargins(picture, framing));
  return { ...fingerprintOf(view), swatch: measureSwatch(view), framing };
}

/** The fingerprint of small planes as they are, without a swatch or framing, to be compared only with others of the same size. */
export function measurePlanes(planes: LabPlanes): Fingerprint {
  return fingerprintOf(viewOfPlanes(planes));
}

function fingerprintOf(view: View): Fingerprint {
  const colour = measureColour(view);
  return {
    measure: MEASURE_VERSION,
    swatch: null,
    framing: null,
    colour,
    light: measureLight(view, colour.palette),
    line: measureLine(view),
    texture: measureTexture(view),
  };
}
