import { interpolateAt, kernels, placesAlong, plane, put, take, within } from '@zinc/kernels';
import { labDistance2, labOfLinear, linearOfLab } from '../colour/oklab.ts';
import { blurAt } from '../image/filter.ts';
import type { Lab, LabPlanes } from '../image/types.ts';
import type { PaletteColour } from '../measure/types.ts';
import { normaliseShares } from '../measure/palette.ts';
import { cos, sin } from '../number/trig.ts';
import { groundOf } from './assign.ts';
import type { Sketch } from './sketch.ts';

/** How one ink lies in an area: not at all, as dots, or solid. */
type Lay = 0 | 1 | 2;
const COVER: Record<Lay, number> = { 0: 0, 1: 0.36, 2: 1 };

/** A set of printing inks, and every colour that printing them solid, as dots and over each other gives. */
export interface Inks {
  paper: Lab;
  inks: Lab[];
  /** Colours that can be printed, with how each ink lies in them. */
  colours: PaletteColour[];
  lays: Lay[][];
}

/** Radius of a dot in periods of the screen. */
const DOT_RADIUS = 0.34;

type Rgb = [number, number, number];

/** What paper and inks look like printed over one another: each ink takes its part of the light (Neugebauer's solids; 1937). */
function overprint(paper: Rgb, inks: Rgb[], covers: number[]): Rgb {
  const out: Rgb = [...paper];
  inks.forEach((ink, k) => {
    for (let c = 0; c < 3; c++) out[c] *= 1 + covers[k] * (ink[c] / Math.max(0.02, paper[c]) - 1);
  });
  return out;
}

/** All ways to lay `count` inks, at most one of them as dots. */
function waysToLay(count: number): Lay[][] {
  let ways: Lay[][] = [[]];
  for (let k = 0; k < count; k++) ways = ways.flatMap(w => [0, 1, 2].map(l => [...w, l as Lay]));
  return ways.filter(w => w.filter(l => l === 1).length <= 1);
}

/**
 * Reads a palette as a print: the paper, and the two or three inks whose solids, tints and overprints explain its colours with least left
 * over. `tint` 0–1 says how much of the print is dots. A darker colour that two inks give together is an overprint and not a third ink.
 */
export function unmixInks(palette: PaletteColour[], tint: number): Inks {
  const paper = palette[groundOf(palette)];
  const paperRgb = linearOfLab(paper);
  const candidates = palette.filter(c => c !== paper && labDistance2(c, paper) > 0.01);
  let best: { cost: number; chosen: PaletteColour[] } = { cost: Infinity, chosen: candidates.slice(0, 1) };
  for (const chosen of subsets(candidates, 3)) {
    const rgb = chosen.map(linearOfLab);
    const printed = waysToLay(chosen.length).map(w =>
      labOfLinear(
        overprint(
          paperRgb,
          rgb,
          w.map(l => COVER[l]),
        ),
      ),
    );
    let cost = 0.0035 * chosen.length;
    for (const c of palette) cost += Math.sqrt(c.share) * Math.min(0.05, ...printed.map(p => labDistance2(p, c, 1.6)));
    if (cost < best.cost) best = { cost, chosen };
  }
  const inks = best.chosen;
  const rgb = inks.map(linearOfLab);
  const lays = waysToLay(inks.length);
  const colours = lays.map(lay => {
    const covers = lay.map(l => COVER[l]);
    const lab = labOfLinear(overprint(paperRgb, rgb, covers));
    const solids = lay.filter(l => l === 2).length;
    // Paper most, then single inks and tints; overprints are rare.
    return { ...lab, share: lay.every(l => l === 0) ? 4 : solids > 1 ? 0.25 : solids === 1 ? 1 : 0.15 + 0.6 * tint };
  });
  return { paper, inks, colours: normaliseShares(colours), lays };
}

function subsets<T>(items: T[], most: number): T[][] {
  let out: T[][] = [[]];
  for (const item of items) out = [...out, ...out.filter(s => s.length < most).map(s => [...s, item])];
  return out.filter(s => s.length > 0);
}

export interface SpotSettings {
  /** Dot period and shift of the inks in sketch pixels; angle of the first ink's dots in radians. */
  gap: number;
  angle: number;
  shift: number;
}

/**
 * Prints the assigned areas ink by ink, in place: every ink is a plate of its own, out of register by its own shift, solid or in dots at
 * its own angle, and takes its light from what is already there.
 */
export function printInks(out: LabPlanes, sketch: Sketch, labels: Uint8Array, inks: Inks, radius: number, s: SpotSettings): void {
  const { width, height } = out;
  const { width: w, height: h, assignment, scale } = sketch;
  const count = inks.inks.length;
  const sharp = 2 * ((1.25 * scale * Math.max(0.6, radius)) | 0 || 1);
  const period = s.gap * scale;
  within(() => {
    const covers = plane(width * height * count);
    const dots = plane(width * height);
    const own = put(labels);
    inks.inks.forEach((_, k) => {
      const dx = k === 0 ? 0 : s.shift * cos(2.1 * k + 0.4);
      const dy = k === 0 ? 0 : s.shift * sin(2.1 * k + 0.4);
      const lay = (wanted: Lay, to: number): boolean => {
        const table = new Uint8Array(256);
        assignment.colourOf.forEach((j, c) => (table[c] = inks.lays[j][k] === wanted ? 1 : 0));
        if (wanted === 1 && !table.includes(1)) return false;
        within(() => {
          const soft = plane(w * h);
          kernels.coverOf(own, put(table), w * h, soft);
          blurAt(soft, w, h, radius);
          interpolateAt(soft, w, h, placesAlong(w, width, -dx), placesAlong(h, height, -dy), to);
        });
        return true;
      };
      const cover = covers + k * width * height * 4;
      lay(2, cover);
      const dotted = lay(1, dots);
      const turn = s.angle + k * 0.52;
      const [c, t] = [cos(turn) / period, sin(turn) / period];
      kernels.inkCover(cover, dotted ? dots : 0, width, height, sharp, c, t, DOT_RADIUS, period);
    });
    const [L, a, b] = [plane(width * height), plane(width * height), plane(width * height)];
    const solids = put(Float32Array.from(solidColours(inks).flatMap(lab => [lab.L, lab.a, lab.b])));
    kernels.printInks(covers, width * height * 4, count, solids, width * height, L, a, b);
    take(L, out.L);
    take(a, out.a);
    take(b, out.b);
  });
}

/** Colours of every set of solid inks, bit k for ink k. */
function solidColours(inks: Inks): Lab[] {
  const paper = linearOfLab(inks.paper);
  const rgb = inks.inks.map(linearOfLab);
  const covers = (set: number): number[] => rgb.map((_, k) => (set >> k) & 1);
  return Array.from({ length: 1 << rgb.length }, (_, set) => labOfLinear(overprint(paper, rgb, covers(set))));
}
