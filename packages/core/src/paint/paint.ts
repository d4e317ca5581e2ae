import { fromLabPlanes, toLabPlanes } from '../colour/oklab.ts';
import { blur, halve, resamplePlane } from '../image/filter.ts';
import { measureFlow, type Flow } from '../image/tensor.ts';
import type { LabPlanes, Picture } from '../image/types.ts';
import { binColours, clusterColours } from '../measure/palette.ts';
import { quantiles } from '../measure/quantiles.ts';
import type { PaletteColour } from '../measure/types.ts';
import type { Style } from '../mix/style.ts';
import { noisePlane } from '../number/noise.ts';
import { latticeHash, mix32, hashText } from '../number/random.ts';
import { clamp, lerp, smoothstep } from '../number/scalar.ts';
import { cos, length2, sin } from '../number/trig.ts';
import { assignPalette } from './assign.ts';
import { paintStrokes } from './brush.ts';
import { layInk } from './ink.ts';
import { avoidColours } from './never.ts';
import type { PaintOptions } from './options.ts';
import { drawOutlines, findLostEdges } from './outline.ts';
import { layFlatColours, shiftColours } from './recolour.ts';
import { smoothKeepingEdges } from './smooth.ts';
import { drawStreamlines, type Field } from './streamlines.ts';
import { matchTone } from './tone.ts';
import { dilutePigment } from './wash.ts';

const WHOLLY_FLAT = 0.97;

/**
 * Paints content in a style. `strength` 0–1: 0 gives the content back byte for byte, 1 the full look. `seed` is a 32-bit integer; the
 * same content, style, strength, seed and options give the same bytes everywhere. Alpha of the content is kept.
 */
export function paint(content: Picture, style: Style, strength: number, seed: number, options: PaintOptions = {}): Picture {
  if (!(strength >= 0 && strength <= 1)) throw new RangeError(`Got a strength of ${strength}; wanted a number from 0 to 1.`);
  const own = toLabPlanes(content);
  if (strength === 0) return { ...content, data: content.data.slice() };
  const { width, height } = own;
  const n = width * height;
  for (const [name, plane] of [
    ['mask', options.mask],
    ['parts', options.parts],
  ] as const)
    if (plane && plane.length !== n) throw new RangeError(`Got a ${name} of ${plane.length} values; wanted ${n}, one a pixel.`);
  const painted = paintFully(own, style, seed, options);
  for (let i = 0; i < n; i++) {
    painted.L[i] = lerp(own.L[i], painted.L[i], strength);
    painted.a[i] = lerp(own.a[i], painted.a[i], strength);
    painted.b[i] = lerp(own.b[i], painted.b[i], strength);
  }
  const out = fromLabPlanes(painted);
  for (let j = 3; j < out.data.length; j += 4) out.data[j] = content.data[j];
  return out;
}

function paintFully(own: LabPlanes, style: Style, seed: number, options: PaintOptions): LabPlanes {
  const { width, height } = own;
  const u = Math.max(width, height) / 512;
  const s = style.amounts;
  const pass = (name: string): number => mix32(seed ^ hashText(name));
  const content: LabPlanes = { ...own, L: own.L.slice() };
  matchTone(content.L, style.tone, s.toneAmount * 0.6);
  const calm = s.smooth > 0 ? smoothKeepingEdges(content, s.smooth * u) : content;
  const ownColours = style.palette.length === 0;
  const palette = avoidColours(ownColours ? clusterColours(binColours(content), 8) : style.palette, options.never);
  const assignment = assignPalette(calm, palette, ownColours ? 1 : s.hueKeep, ownColours ? 0 : s.shareAmount, options.mask);
  const flow = measureFlow(calm.L, width, height, 2.2 * u);

  // A wholly flat look covers every shifted pixel, so the shift is not worked out for it.
  const out =
    s.flat > WHOLLY_FLAT
      ? lerpPlanes(content, calm, 0)
      : shiftColours(lerpPlanes(content, calm, Math.max(s.flat, s.brush)), assignment, palette, ownColours ? 0 : s.paletteAmount);
  let index: Uint8Array | null = null;
  if (s.flat > 0.02) {
    const flat = layFlatColours(assignment, palette, width, height, (0.8 + 1.1 * s.flat) * u);
    index = flat.index;
    blendInto(out, flat.planes, s.flat > WHOLLY_FLAT ? 1 : s.flat);
  }
  const paper = palette[assignment.ground];
  const dark = palette[0];
  if (s.edgeKeep > 0.02 && index) keepLostEdges(content, out, flow, palette, index, s.edgeKeep * s.flat, u, options.parts);
  if (s.brush > 0.02) brushOver(out, content, flow, style, u, pass('brush'));
  if (s.wash > 0.02) dilutePigment(out, paper, s.wash, s.washEdge, u, pass('wash'));
  if (style.tone.length > 0) matchTone(out.L, style.tone, s.toneAmount * 0.35);
  if (s.carve > 0.02) carveLight(out, content, index, palette, assignment.ground, style, u, pass('carve'));
  if (s.hatch > 0.02) hatchDark(out, content, paper, dark, style, u, pass('hatch'), options.mask);
  if (s.outline > 0.02 || s.lightLines > 0.02) outlineOver(out, calm, flow, paper, dark, style, u, pass('outline'));
  if (s.grain > 0.01) surfaceGrain(out, paper, s.grain, u, pass('grain'));
  return out;
}

function lerpPlanes(p: LabPlanes, q: LabPlanes, t: number): LabPlanes {
  const out = { ...p, L: p.L.slice(), a: p.a.slice(), b: p.b.slice() };
  blendInto(out, q, t);
  return out;
}

function blendInto(out: LabPlanes, over: LabPlanes, t: number): void {
  if (t <= 0 || out === over) return;
  for (let i = 0; i < out.L.length; i++) {
    out.L[i] += (over.L[i] - out.L[i]) * t;
    out.a[i] += (over.a[i] - out.a[i]) * t;
    out.b[i] += (over.b[i] - out.b[i]) * t;
  }
}

/** Draws a thin line in the next darker (or, inside the darkest, the paper) colour where flattening has lost an edge. */
function keepLostEdges(
  content: LabPlanes,
  out: LabPlanes,
  flow: Flow,
  palette: PaletteColour[],
  index: Uint8Array,
  amount: number,
  u: number,
  parts?: Uint8Array,
): void {
  const { width, height } = out;
  const lost = blur(findLostEdges(content, out, flow, 1.2 * u, parts), width, height, 0.7 * u);
  const partner = palette.map((c, j) => {
    let best = -1;
    palette.forEach((d, k) => {
      if (k !== j && d.share > 0.02 && d.L < c.L - 0.1 && (best < 0 || d.L > palette[best].L)) best = k;
    });
    if (best >= 0) return best;
    return palette.reduce((top, d, k) => (d.L > palette[top].L ? k : top), 0);
  });
  for (let i = 0; i < index.length; i++) {
    const c = smoothstep(0.16, 0.5, lost[i]) * amount;
    if (c < 0.02) continue;
    const ink = palette[partner[index[i]]];
    out.L[i] += (ink.L - out.L[i]) * c;
    out.a[i] += (ink.a - out.a[i]) * c;
    out.b[i] += (ink.b - out.b[i]) * c;
  }
}

/** A direction for marks everywhere: the form's own where it has one, else a fixed angle that drifts slowly. */
function markField(
  L: Float32Array,
  width: number,
  height: number,
  angle: number,
  follow: number,
  drift: number,
  u: number,
  seed: number,
): Field {
  let low = { width, height, data: L };
  let factor = 1;
  while (Math.max(low.width, low.height) > 220) {
    low = halve(low) as typeof low;
    factor *= 2;
  }
  const flow = measureFlow(low.data, low.width, low.height, (9 * u) / factor);
  const m = flow.tx.length;
  const c2 = new Float32Array(m);
  const s2 = new Float32Array(m);
  const strengthOf = blur(flow.gradient, low.width, low.height, (5 * u) / factor);
  const wander = noisePlane(low.width, low.height, (70 * u) / factor, seed, 2);
  for (let i = 0; i < m; i++) {
    const own = follow * smoothstep(0.002, 0.02, strengthOf[i]) * flow.coherence[i];
    const base = angle + wander[i] * drift;
    c2[i] = lerp(cos(2 * base), flow.tx[i] * flow.tx[i] - flow.ty[i] * flow.ty[i], own);
    s2[i] = lerp(sin(2 * base), 2 * flow.tx[i] * flow.ty[i], own);
  }
  const C = resamplePlane({ ...low, data: c2 }, width, height);
  const S = resamplePlane({ ...low, data: s2 }, width, height);
  const tx = new Float32Array(L.length);
  const ty = new Float32Array(L.length);
  for (let i = 0; i < tx.length; i++) {
    // Half-angle of (C, S) without a trigonometric call a pixel.
    const r = length2(C[i], S[i]) || 1;
    const c = C[i] / r;
    const x = Math.sqrt(Math.max(0, (1 + c) / 2));
    const y = Math.sqrt(Math.max(0, (1 - c) / 2));
    tx[i] = x;
    ty[i] = S[i] < 0 ? -y : y;
  }
  return { tx, ty };
}

function brushOver(out: LabPlanes, content: LabPlanes, flow: Flow, style: Style, u: number, seed: number): void {
  const { width, height } = out;
  const s = style.amounts;
  const size = s.brushSize * u;
  const target: LabPlanes = {
    width,
    height,
    L: blur(out.L, width, height, 6 * u),
    a: blur(out.a, width, height, 6 * u),
    b: blur(out.b, width, height, 6 * u),
  };
  const detail = blur(flow.gradient, width, height, 3 * u);
  for (let i = 0; i < detail.length; i++) detail[i] = Math.min(1, detail[i] * 8);
  const field = markField(content.L, width, height, s.hatchAngle, 1, 0.8, u, seed);
  paintStrokes(target, out, field, detail, {
    sizes: [size * 2.2, size, Math.max(1.6, size * 0.42)],
    length: s.brushLength,
    bristle: s.bristle,
    seed,
  });
  blendInto(out, target, smoothstep(0, 0.7, s.brush));
}

function carveLight(
  out: LabPlanes,
  content: LabPlanes,
  index: Uint8Array | null,
  palette: PaletteColour[],
  ground: number,
  style: Style,
  u: number,
  seed: number,
): void {
  const { width, height } = out;
  const gap = style.amounts.carveGap * u;
  const near = blur(content.L, width, height, 2.5 * u);
  const around = blur(content.L, width, height, 26 * u);
  const light = palette[ground];
  const inked = new Float32Array(near.length);
  let count = 0;
  for (let i = 0; i < inked.length; i++) {
    const bare = index ? index[i] === ground : light.L - out.L[i] < 0.08;
    if (!bare) inked[count++] = near[i];
  }
  // Lights and darks are those of the inked areas alone, so a dark subject is opened up as far as a light one.
  const tone17 = quantiles(inked.subarray(0, count), 17);
  const range = Math.max(0.05, tone17[15] - tone17[1]);
  const tone = new Float32Array(near.length);
  for (let i = 0; i < tone.length; i++) {
    const bare = index ? index[i] === ground : light.L - out.L[i] < 0.08;
    const t = clamp((near[i] - tone17[1]) / range);
    tone[i] = bare ? 0 : clamp(smoothstep(0.35, 1, t) * 0.62 + (near[i] - around[i]) * 2.4);
  }
  const field = markField(content.L, width, height, style.amounts.hatchAngle, 0.9, 0.4, u, seed);
  const marks = drawStreamlines(field, tone, width, height, {
    gap,
    length: gap * 4.2,
    width: 0.8,
    turn: 0,
    least: 0.18,
    stray: 0.9,
    taper: 0.7,
    seed,
    pass: 'gouges',
  });
  layInk(out, marks, light, style.amounts.carve);
}

function hatchDark(
  out: LabPlanes,
  content: LabPlanes,
  paper: PaletteColour,
  dark: PaletteColour,
  style: Style,
  u: number,
  seed: number,
  mask?: Float32Array,
): void {
  const { width, height } = out;
  const s = style.amounts;
  const n = out.L.length;
  const near = blur(content.L, width, height, 1.2 * u);
  const around = blur(content.L, width, height, 22 * u);
  const tone17 = quantiles(content.L, 17);
  const range = Math.max(0.05, tone17[15] - tone17[0]);
  // Lines carry the tone, so the ground beneath them is cleared first.
  const clear = s.hatch * 0.85;
  for (let i = 0; i < n; i++) {
    out.L[i] += (lerp(paper.L, out.L[i], 0.14) - out.L[i]) * clear;
    out.a[i] += (paper.a - out.a[i]) * clear * 0.85;
    out.b[i] += (paper.b - out.b[i]) * clear * 0.85;
  }
  const tone = new Float32Array(n);
  const cross = new Float32Array(n);
  for (let i = 0; i < n; i++) {
    const t = 1 - clamp((near[i] - tone17[0]) / range);
    const ground = mask ? 0.35 + 0.65 * mask[i] : 1;
    tone[i] = clamp((t * (0.55 + 0.45 * t) - (near[i] - around[i]) * 1.1) * 0.95) * ground;
    cross[i] = clamp((tone[i] - 0.45) * 1.5);
  }
  const field = markField(content.L, width, height, s.hatchAngle, s.hatchFollow, 0.08, u, seed);
  const gap = s.hatchGap * u;
  const settings = { gap, length: 60 * u, width: 0.9, turn: 0, least: 0.14, stray: 0.4, taper: 0.25, seed, pass: 'hatching' };
  const marks = drawStreamlines(field, tone, width, height, settings);
  layInk(out, marks, dark, s.hatch);
  if (s.cross > 0.05) {
    const second = drawStreamlines(field, cross, width, height, {
      ...settings,
      gap: gap * 1.05,
      length: 40 * u,
      width: 0.8 * s.cross,
      turn: 1.15,
      pass: 'cross',
    });
    layInk(out, second, dark, s.hatch);
  }
}

function outlineOver(
  out: LabPlanes,
  calm: LabPlanes,
  flow: Flow,
  paper: PaletteColour,
  dark: PaletteColour,
  style: Style,
  u: number,
  seed: number,
): void {
  const s = style.amounts;
  const cover = drawOutlines(calm, flow, s.outlineWidth * u, s.outlineRag, seed);
  const span = Math.max(0.1, paper.L - dark.L);
  for (let i = 0; i < cover.length; i++) {
    const c = cover[i];
    if (c <= 0) continue;
    const inDark = smoothstep(0.3, 0.55, (paper.L - out.L[i]) / span);
    const lightPart = c * inDark * s.lightLines;
    if (lightPart > 0) {
      out.L[i] += (paper.L - out.L[i]) * lightPart;
      out.a[i] += (paper.a - out.a[i]) * lightPart;
      out.b[i] += (paper.b - out.b[i]) * lightPart;
    }
    const darkPart = c * (1 - inDark * s.lightLines) * s.outline;
    out.L[i] += (Math.min(out.L[i], dark.L) - out.L[i]) * darkPart;
    out.a[i] += (dark.a - out.a[i]) * darkPart;
    out.b[i] += (dark.b - out.b[i]) * darkPart;
  }
}

/** Paper tooth and specks, only as strong as was measured. */
function surfaceGrain(out: LabPlanes, paper: PaletteColour, amount: number, u: number, seed: number): void {
  const { width, height, L } = out;
  const tooth = noisePlane(width, height, Math.max(1.5, 3.2 * u), seed, 3);
  const cell = Math.max(1, u);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const speck = latticeHash((x / cell) | 0, (y / cell) | 0, seed);
      const ink = clamp((paper.L - L[i]) * 2);
      L[i] += amount * (0.018 * tooth[i] + (speck - 0.5) * 0.03);
      if (speck > 1 - 0.07 * amount * ink) L[i] += (paper.L - L[i]) * 0.6 * amount;
    }
}
