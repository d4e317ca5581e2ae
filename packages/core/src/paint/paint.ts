import { inBlocks, kernels } from '@zinc/kernels';
import { fromLabPlanes, labDistance2, toLabPlanes } from '../colour/oklab.ts';
import { blur } from '../image/filter.ts';
import { subjectMask } from '../image/subjectMask.ts';
import { checkPicture, type Lab, type LabPlanes, type Picture } from '../image/types.ts';
import { neutralStyle, PATCH_SCALE, type Style } from '../mix/style.ts';
import { hashText, mix32 } from '../number/random.ts';
import { noisePlane } from '../number/noise.ts';
import { lerp } from '../number/scalar.ts';
import { paintStrokes } from './brush.ts';
import { pullTowards } from '../set/pull.ts';
import { carveLight } from './carve.ts';
import { leaveClear } from './clear.ts';
import { holdBack, returnDetail } from './fidelity.ts';
import { markField } from './field.ts';
import { layAreas, type Areas } from './flat.ts';
import { layGrain } from './grain.ts';
import { hatchDark } from './hatch.ts';
import { keepColoursOut } from './never.ts';
import type { PaintOptions } from './options.ts';
import { keepLostEdges, layOutlines } from './outline.ts';
import { layPatches } from './patches.ts';
import { blendAreas, blendInto, emptyPlanes, fadeTo, mixPlanes, resamplePlanes } from './planes.ts';
import { shiftColours } from './recolour.ts';
import { layShadows } from './shadow.ts';
import { settle } from './settle.ts';
import { makeSketch, shrinkTo, type Sketch } from './sketch.ts';
import { printInks, unmixInks, type Inks } from './spot.ts';
import { placeAt, strengthStops } from './strength.ts';
import { matchTone } from './tone.ts';
import { layWash } from './wash.ts';

/** From here on a pass is taken to cover all that was under it. */
const WHOLLY = 0.97;
const LEAST = 0.02;
/** Long side of the small paintings that a bound picture is settled on: smaller ones misjudge marks, larger ones bring sets no nearer together. */
const TRIAL_SIDE = 320;
/** Strokes bring part of a surface's unrest; patches the rest of it. */
const PATCH_SHARE = 0.7;

/**
 * Paints content in a style. `strength` 0–1: 0 gives the content back byte for byte, 1 the full look, and equal steps between give about
 * equal change. `seed` is a 32-bit integer; the same content, style, strength, seed and options give the same bytes everywhere. Alpha of
 * the content is kept. Throws RangeError or PictureError on bad input.
 */
export function paint(content: Picture, style: Style, strength: number, seed: number, options: PaintOptions = {}): Picture {
  return painting(content, style, seed, options)(strength);
}

/**
 * {@link paint} for one content, style and seed at any number of strengths: what does not depend on strength is worked out once, when it
 * is first needed. `rough` takes strength as it stands, without evening it out: for previews that are soon painted over.
 */
export function painting(
  content: Picture,
  style: Style,
  seed: number,
  options: PaintOptions = {},
): (strength: number, rough?: boolean) => Picture {
  checkPicture(content);
  const n = content.width * content.height;
  for (const [name, plane] of [
    ['mask', options.mask],
    ['parts', options.parts],
  ] as const)
    if (plane && plane.length !== n) throw new RangeError(`Got a ${name} of ${plane.length} values; wanted ${n}, one a pixel.`);
  // A style from an older mixer lacks the settings that came later; they stand at neutral.
  const complete = { ...style, amounts: { ...neutralStyle().amounts, ...style.amounts } };
  let full: LabPlanes | null = null;
  let own: LabPlanes | null = null;
  let stops: number[] | null | undefined;
  return (strength, rough = false) => {
    if (!(strength >= 0 && strength <= 1)) throw new RangeError(`Got a strength of ${strength}; wanted a number from 0 to 1.`);
    if (strength === 0) return { ...content, data: content.data.slice() };
    full ??= paintWhole(content, complete, seed, options);
    if (strength === 1) {
      const whole = { ...full, L: full.L.slice(), a: full.a.slice(), b: full.b.slice() };
      keepColoursOut(whole, options.never);
      return fromLabPlanes(whole, content);
    }
    own ??= startOf(content, full, options);
    if (stops === undefined && !rough) stops = strengthStops(own, full, hasFineMarks(complete));
    const part = { ...own, L: own.L.slice(), a: own.a.slice(), b: own.b.slice() };
    blendInto(part, full, placeAt(stops ?? null, strength));
    keepColoursOut(part, options.never);
    return fromLabPlanes(part, content);
  };
}

/**
 * What a picture of less than full strength starts from: the content; where a set shares its ground, that of the full look beneath it, or
 * every photograph would bring its own backdrop into the set.
 */
function startOf(content: Picture, full: LabPlanes, { bind, fidelity, mask }: PaintOptions): LabPlanes {
  const own = toLabPlanes(content);
  if (!bind?.sheet.share.includes('ground')) return own;
  const subject = mask ?? subjectMask(content);
  if (!subject) return own;
  const share = bind.amount * (1 - (fidelity?.ground ?? 0));
  for (const k of ['L', 'a', 'b'] as const)
    for (let i = 0; i < subject.length; i++) own[k][i] += (full[k][i] - own[k][i]) * (1 - subject[i]) * share;
  return own;
}

/** The full look with what the options hold back, return and leave clear. */
function paintWhole(content: Picture, style: Style, seed: number, options: PaintOptions): LabPlanes {
  const { fidelity, bind, clear } = options;
  const held = fidelity ? holdBack(style, fidelity) : style;
  const bound = bind ? settle(trial(content, seed, options), held, bind.sheet, bind.amount) : null;
  const { planes: painted, ground } = paintFully(content, bound ? bound.style : held, seed, options);
  if (bound) pullTowards(painted, bind!.sheet.target, bound.pulls);
  if (fidelity) returnDetail(painted, toLabPlanes(content), fidelity, options.mask);
  if (clear?.length) leaveClear(painted, clear, ground);
  return painted;
}

function hasFineMarks({ amounts }: Style): boolean {
  return amounts.hatch > 0.1 || amounts.spot > 0.1;
}

/** Paints small copies of the content in styles to be tried. */
function trial(content: Picture, seed: number, options: PaintOptions): (style: Style) => LabPlanes {
  const small = shrinkTo(content, options, TRIAL_SIDE);
  return style => paintFully(small.picture, style, seed, small.options).planes;
}

/** The full look, as planes of the content's size, and the colour of its ground. */
function paintFully(content: Picture, style: Style, seed: number, options: PaintOptions): { planes: LabPlanes; ground: Lab } {
  const s = style.amounts;
  const pass = (name: string): number => mix32(seed ^ hashText(name));
  const inks = s.spot > 0.5 && style.palette.length > 1 ? unmixInks(style.palette, s.tint) : null;
  const sketch = makeSketch(content, style, inks ? inks.colours : style.palette, options);
  const { u, scale } = sketch;
  const out = emptyPlanes(content.width, content.height);
  const areas = needsAreas(style) ? layAreas(sketch, out, areaSettings(style, u, pass('areas'))) : null;
  const covered = inks !== null || (areas !== null && s.flat > WHOLLY) || s.wash > WHOLLY;
  if (!covered) laySoft(out, content, sketch, style, areas);
  if (areas && s.edgeKeep > LEAST) keepLostEdges(out, sketch, areas, s.edgeKeep * s.flat * (1 - 0.75 * s.shadow), s.wobble);
  if (areas && s.wash > LEAST) {
    const { washEdge: edge, washBleed: bleed } = s;
    layWash(out, sketch, areas, { amount: s.wash, edge, bleed, seed: pass('wash') });
  }
  if (s.brush > LEAST) brushOver(out, sketch, style, areas, pass('brush'));
  if (s.patch > LEAST && style.swatch) patchOver(out, sketch, style, areas, pass('patches'));
  if (inks) spotPrint(out, sketch, style, inks);
  if (areas && s.shadow > LEAST) layShadows(out, sketch, areas, s.shadow, s.shadowAngle);
  // Flat and washed areas have the palette's own tones already; to move them would soil the sheet.
  if (style.tone.length > 0 && !inks && !(areas && Math.max(s.flat, s.wash) > 0.4))
    matchTone(out.L, style.tone, s.toneAmount * 0.35);
  if (s.carve > LEAST) carveLight(out, sketch, areas, style, pass('carve'));
  if (s.hatch > LEAST) hatchDark(out, sketch, style, pass('hatch'));
  if (s.outline > LEAST || s.lightLines > LEAST) layOutlines(out, sketch, style, areas, pass('outline'));
  if (s.grain > 0.01) layGrain(out, sketch.palette[sketch.assignment.ground], s.grain, u * scale, pass('grain'));
  return { planes: out, ground: sketch.palette[sketch.assignment.ground] };
}

function needsAreas(style: Style): boolean {
  const s = style.amounts;
  return s.flat > LEAST || s.wash > LEAST || s.carve > LEAST || s.shadow > LEAST;
}

function areaSettings(style: Style, u: number, seed: number): Parameters<typeof layAreas>[2] {
  const s = style.amounts;
  const reach = Math.max(s.wobble * 1.3, s.wash * s.washBleed * 3);
  return {
    radius: (0.75 + 0.55 * s.flat + 0.2 * s.smooth + 2 * s.simplify) * u,
    wobble: reach * u,
    cell: (s.wash > 0.3 ? 14 : 7) * u,
    seed,
  };
}

/** Softly recoloured content where the look is not wholly flat; what is finer than the sketch is taken from the content itself. */
function laySoft(out: LabPlanes, content: Picture, sketch: Sketch, style: Style, areas: Areas | null): void {
  const s = style.amounts;
  const amount = sketch.ownColours ? 0 : s.paletteAmount;
  const base = mixPlanes(sketch.content, sketch.calm, Math.max(s.flat, s.brush));
  const shifted = shiftColours(base, sketch.assignment, sketch.palette, amount, sketch.mask);
  const soft = resamplePlanes(shifted, out.width, out.height);
  const detail = (1 - s.flat) * (1 - s.brush) * (1 - s.wash) * (1 - 0.8 * s.hatch);
  if (sketch.scale > 1 && detail > 0.05) {
    const own = toLabPlanes(content);
    const coarse = resamplePlanes(sketch.own, out.width, out.height);
    for (const k of ['L', 'a', 'b'] as const)
      inBlocks([soft[k]], [own[k], coarse[k]], ([p, q, r], count) => kernels.addDifference(p, q, r, count, detail));
  }
  if (!areas) {
    out.L.set(soft.L);
    out.a.set(soft.a);
    out.b.set(soft.b);
  } else {
    // In a look of flat areas a photographed backdrop stays as flat as its sheet.
    const bare = sketch.assignment.sheet >= 0 && s.flat > 0.4 ? sketch.assignment.ground : -1;
    blendAreas(out, soft, areas.index, bare, 1 - s.flat);
  }
}

/** The reference's own surface over what was painted; a bare ground keeps its sheet. */
function patchOver(out: LabPlanes, sketch: Sketch, style: Style, areas: Areas | null, seed: number): void {
  const s = style.amounts;
  const bare = areas && s.groundWork < 0.5 ? sketch.assignment.ground : -1;
  const where = areas && bare >= 0 ? Float32Array.from(areas.index, j => (j === bare ? 0 : 1)) : null;
  const field = markField(sketch, s.hatchAngle, 0.8, 0.3 + 2 * s.swirl, seed);
  const top = style.tone.at(-1) ?? Math.max(...sketch.palette.map(c => c.L));
  layPatches(out, field, style.swatch!, s.patch * PATCH_SCALE * PATCH_SHARE, where, top, sketch.u * sketch.scale, seed);
}

function spotPrint(out: LabPlanes, sketch: Sketch, style: Style, inks: Inks): void {
  const s = style.amounts;
  printInks(out, sketch, sketch.assignment.labels, inks, (0.9 + 0.2 * s.smooth) * sketch.u, {
    gap: s.dotGap * sketch.u,
    angle: s.dotAngle,
    shift: s.misregister * sketch.u,
  });
}

function brushOver(out: LabPlanes, sketch: Sketch, style: Style, areas: Areas | null, seed: number): void {
  const { width, height, u, scale, palette, assignment, mask } = sketch;
  const s = style.amounts;
  const size = s.brushSize * u * scale;
  const paper = palette[assignment.ground];
  const amount = sketch.ownColours ? 0 : s.paletteAmount;
  const source = shiftColours(sketch.calm, assignment, palette, amount, mask);
  if (areas && s.flat > 0.4) {
    for (let i = 0; i < source.L.length; i++) {
      const c = palette[areas.sketchIndex[i]];
      source.L[i] = lerp(source.L[i], c.L, s.flat);
      source.a[i] = lerp(source.a[i], c.a, s.flat);
      source.b[i] = lerp(source.b[i], c.b, s.flat);
    }
  }
  const detail = blur(sketch.slopes.size, width, height, 2.5 * u);
  for (let i = 0; i < detail.length; i++) {
    const d = detail[i] * 8 * (mask ? 0.25 + 0.75 * mask[i] : 1);
    detail[i] = d > 1 ? 1 : d;
  }
  let wanted: Float32Array | undefined;
  if (s.tooth > 0.3) {
    // Dry sticks leave the sheet bare where the content is as light as it.
    wanted = new Float32Array(source.L.length);
    for (let i = 0; i < wanted.length; i++) {
      const off = Math.abs(source.L[i] - paper.L) + Math.abs(source.a[i] - paper.a) + Math.abs(source.b[i] - paper.b);
      wanted[i] = off > 0.05 ? 1 : 0;
    }
    if (s.groundWork > 0.1) scatterOnGround(source, wanted, sketch, s.groundWork, seed);
    fadeTo(out, paper, s.tooth, s.tooth);
  }
  const confined = areas !== null && s.flat > 0.4 && s.tooth < 0.3;
  const field = markField(
    sketch,
    s.hatchAngle,
    confined ? 0.5 * s.swirl : 1,
    confined ? 0.15 + 0.5 * s.swirl : 0.4 + 2.4 * s.swirl,
    seed,
  );
  paintStrokes(
    out,
    { field, source, detail, wanted },
    {
      sizes:
        s.tooth > 0.3
          ? [size * 1.15, size * 0.75]
          : confined
            ? [size * 1.3, size * 0.7]
            : [size * 2.1, size * 1.15, Math.max(1.4, size * 0.6)],
      length: s.brushLength,
      bristle: s.bristle,
      jitter: s.brushJitter,
      relief: s.relief,
      tooth: s.tooth,
      seed,
      inside: confined ? { index: areas.index, bare: assignment.ground } : undefined,
    },
  );
}

/** Loose patches of strokes on a worked ground, in the palette colour nearest to the sheet's own. */
function scatterOnGround(source: LabPlanes, wanted: Float32Array, sketch: Sketch, amount: number, seed: number): void {
  const { width, height, u, palette, assignment } = sketch;
  const paper = palette[assignment.ground];
  const near = palette.filter(c => c !== paper).sort((p, q) => labDistance2(p, paper) - labDistance2(q, paper))[0];
  if (!near) return;
  const breath = Math.min(1, 0.09 / Math.sqrt(labDistance2(near, paper) + 1e-6));
  const patches = noisePlane(width, height, 70 * u, seed + 41, 2);
  for (let i = 0; i < wanted.length; i++) {
    if (wanted[i] > 0 || patches[i] < 0.55 - 0.4 * amount) continue;
    // A colour far from the sheet's is only breathed on.
    source.L[i] = lerp(paper.L, near.L, breath);
    source.a[i] = lerp(paper.a, near.a, breath);
    source.b[i] = lerp(paper.b, near.b, breath);
    wanted[i] = 0.6;
  }
}
