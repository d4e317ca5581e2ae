import { labDistance2, labOfLinear, linearOfLab } from '../colour/oklab.ts';
import { blur } from '../image/filter.ts';
import type { Lab, LabPlanes } from '../image/types.ts';
import type { PaletteColour } from '../measure/types.ts';
import { normaliseShares } from '../measure/palette.ts';
import { clamp } from '../number/scalar.ts';
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
  const plates = inks.inks.map((_, k) => {
    const plane = (wanted: Lay): Float32Array => {
      const of = Uint8Array.from(assignment.colourOf, j => (inks.lays[j][k] === wanted ? 1 : 0));
      const raw = new Float32Array(w * h);
      for (let i = 0; i < raw.length; i++) raw[i] = of[labels[i]];
      return blur(raw, w, h, radius);
    };
    const turn = s.angle + k * 0.52;
    return {
      solid: plane(2),
      dots: plane(1),
      dx: k === 0 ? 0 : s.shift * cos(2.1 * k + 0.4),
      dy: k === 0 ? 0 : s.shift * sin(2.1 * k + 0.4),
      c: cos(turn) / (s.gap * scale),
      s: sin(turn) / (s.gap * scale),
    };
  });
  const paperRgb = linearOfLab(inks.paper);
  const rgb = inks.inks.map(linearOfLab);
  const full = 1 << count;
  // Colours of every set of solid inks; between them coverages mix as areas do.
  const solids = Array.from({ length: full }, (_, set) =>
    labOfLinear(
      overprint(
        paperRgb,
        rgb,
        rgb.map((__, k) => (set >> k) & 1),
      ),
    ),
  );
  const sharp = (1.25 * scale * Math.max(0.6, radius)) | 0 || 1;
  const dotRadius = 0.34;
  const dotSharp = s.gap * scale;
  const cover = new Float64Array(count);
  const kx = w / width;
  const ky = h / height;
  for (let y = 0, o = 0; y < height; y++)
    for (let x = 0; x < width; x++, o++) {
      let set = 0;
      let whole = true;
      for (let k = 0; k < count; k++) {
        const p = plates[k];
        let gx = (x + 0.5) * kx - 0.5 - p.dx;
        let gy = (y + 0.5) * ky - 0.5 - p.dy;
        gx = gx < 0 ? 0 : gx > w - 1.001 ? w - 1.001 : gx;
        gy = gy < 0 ? 0 : gy > h - 1.001 ? h - 1.001 : gy;
        const xi = gx | 0;
        const yi = gy | 0;
        const i = yi * w + xi;
        const e = xi + 1 < w ? 1 : 0;
        const d = yi + 1 < h ? w : 0;
        const tx = gx - xi;
        const ty = gy - yi;
        let top = p.solid[i] + (p.solid[i + e] - p.solid[i]) * tx;
        let v = top + (p.solid[i + d] + (p.solid[i + d + e] - p.solid[i + d]) * tx - top) * ty;
        let c = 0.5 + (v - 0.5) * sharp * 2;
        c = c < 0 ? 0 : c > 1 ? 1 : c;
        if (c < 1) {
          top = p.dots[i] + (p.dots[i + e] - p.dots[i]) * tx;
          v = top + (p.dots[i + d] + (p.dots[i + d + e] - p.dots[i + d]) * tx - top) * ty;
          let tint = 0.5 + (v - 0.5) * sharp * 2;
          tint = tint < 0 ? 0 : tint > 1 ? 1 : tint;
          if (tint > 0) {
            let px = x * p.c + y * p.s;
            let py = y * p.c - x * p.s;
            px -= Math.floor(px) + 0.5;
            py -= Math.floor(py) + 0.5;
            const dot = clamp((dotRadius - Math.sqrt(px * px + py * py)) * dotSharp + 0.5);
            if (dot * tint > c) c = dot * tint;
          }
        }
        cover[k] = c;
        if (c >= 0.5) set |= 1 << k;
        if (c > 0 && c < 1) whole = false;
      }
      if (whole) {
        const ink = solids[set];
        out.L[o] = ink.L;
        out.a[o] = ink.a;
        out.b[o] = ink.b;
        continue;
      }
      let L = 0;
      let a = 0;
      let b = 0;
      for (let q = 0; q < full; q++) {
        let weight = 1;
        for (let k = 0; k < count; k++) weight *= (q >> k) & 1 ? cover[k] : 1 - cover[k];
        if (weight === 0) continue;
        L += weight * solids[q].L;
        a += weight * solids[q].a;
        b += weight * solids[q].b;
      }
      out.L[o] = L;
      out.a[o] = a;
      out.b[o] = b;
    }
}
