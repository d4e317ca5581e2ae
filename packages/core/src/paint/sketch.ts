import { toLabPlanes } from '../colour/oklab.ts';
import { resamplePlane } from '../image/filter.ts';
import { resizePicture } from '../image/resize.ts';
import { subjectMask } from '../image/subjectMask.ts';
import { measureFlow, slopesOf, type Flow, type Slopes } from '../image/tensor.ts';
import type { LabPlanes, Picture } from '../image/types.ts';
import { binColours, clusterColours } from '../measure/palette.ts';
import type { PaletteColour } from '../measure/types.ts';
import type { Style } from '../mix/style.ts';
import { assignPalette, type Assignment } from './assign.ts';
import { avoidColours } from './never.ts';
import type { PaintOptions } from './options.ts';
import { smoothKeepingEdges } from './smooth.ts';
import { matchTone } from './tone.ts';

const LONG_SIDE = 512;

/**
 * Everything that is decided before a mark is made, worked out on a copy whose long side is at most 512. The decisions are the same for
 * every larger size, so an enlarged proof is the same picture.
 */
export interface Sketch {
  width: number;
  height: number;
  /** Sketch pixels per 1/512 of the long side, and full-size pixels per sketch pixel. */
  u: number;
  scale: number;
  own: LabPlanes;
  /** The content after its tone was moved, and the same with small detail smoothed away. */
  content: LabPlanes;
  calm: LabPlanes;
  slopes: Slopes;
  /** Directions of the calm content, half size. */
  flow: Flow;
  mask?: Float32Array;
  parts?: Uint8Array;
  palette: PaletteColour[];
  /** Whether the palette is the content's own. */
  ownColours: boolean;
  assignment: Assignment;
}

function nearestPlane(plane: Uint8Array, w: number, h: number, width: number, height: number): Uint8Array {
  if (w === width && h === height) return plane;
  const out = new Uint8Array(width * height);
  for (let y = 0, o = 0; y < height; y++) {
    const row = Math.min(h - 1, Math.floor(((y + 0.5) * h) / height)) * w;
    for (let x = 0; x < width; x++, o++) out[o] = plane[row + Math.min(w - 1, Math.floor(((x + 0.5) * w) / width))];
  }
  return out;
}

/** A copy of content whose long side is at most `side`, with its mask and parts; the same things when it is small enough. */
export function shrinkTo(picture: Picture, options: PaintOptions, side: number): { picture: Picture; options: PaintOptions } {
  const long = Math.max(picture.width, picture.height);
  if (long <= side) return { picture, options };
  const [width, height] = [picture.width, picture.height].map(s => Math.max(1, Math.round((s * side) / long)));
  const { mask, parts } = options;
  const from = { width: picture.width, height: picture.height };
  return {
    picture: resizePicture(picture, width, height),
    options: {
      ...options,
      mask: mask && resamplePlane({ ...from, data: mask }, width, height),
      parts: parts && nearestPlane(parts, from.width, from.height, width, height),
    },
  };
}

export function makeSketch(picture: Picture, style: Style, palette: PaletteColour[], options: PaintOptions): Sketch {
  const { picture: small, options: reduced } = shrinkTo(picture, options, LONG_SIDE);
  const { width, height } = small;
  const own = toLabPlanes(small);
  const u = Math.max(width, height) / 512;
  const s = style.amounts;
  const content: LabPlanes = { ...own, L: own.L.slice() };
  matchTone(content.L, style.tone, s.toneAmount * 0.6);
  const calm = s.smooth > 0 ? smoothKeepingEdges(content, s.smooth * u) : content;
  const mask = reduced.mask ?? subjectMask(small) ?? undefined;
  const { parts } = reduced;
  const ownColours = palette.length === 0;
  const inks = avoidColours(ownColours ? clusterColours(binColours(content), 8) : palette, options.never);
  // A backdrop that was photographed becomes one ground, alike throughout a set, unless the ground is to be kept.
  const mostGrounds = (options.fidelity?.ground ?? 0) < 0.5 ? 1 : 3;
  const slopes = slopesOf(calm.L, width, height);
  return {
    width,
    height,
    u,
    scale: picture.width / width,
    own,
    content,
    calm,
    slopes,
    flow: measureFlow(slopes, 2.4 * u),
    mask,
    parts,
    palette: inks,
    ownColours,
    assignment: assignPalette(
      calm,
      inks,
      ownColours ? 1 : s.hueKeep,
      ownColours ? 0 : s.shareAmount,
      mask,
      options.mask ? undefined : mostGrounds,
    ),
  };
}
