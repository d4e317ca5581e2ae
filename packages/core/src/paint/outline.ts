import { inBlocks, interpolateAt, kernels, placesAlong, plane, put, take, within, zeros } from '@zinc/kernels';
import { blur, blurAt, resamplePlane } from '../image/filter.ts';
import { resampleFlow } from '../image/tensor.ts';
import type { LabPlanes } from '../image/types.ts';
import { exp } from '../number/trig.ts';
import { noisePlane } from '../number/noise.ts';
import type { Style } from '../mix/style.ts';
import type { Areas } from './flat.ts';
import type { Sketch } from './sketch.ts';

const REACH = 6;
/** Far from any edge there is no line; pixels calmer than this are passed over. */
const CALM = 0.0012;
/** Least depth of an edge that is drawn by a style wholly of lines, and how much deeper it must be for one with hardly any. */
const FAINTEST = 0.013;
const BOLDER = 0.03;
const LEAST = 0.02;

/**
 * How deep a drawn outline lies at each sketch pixel: a difference of Gaussians across the edge, averaged along it (flow-based; Kang et
 * al. 2007, Winnemöller et al. 2012). `width` in sketch pixels; `rag` 0–1 breaks the line up.
 */
function outlineDepth(sketch: Sketch, width: number, rag: number, seed: number): Float32Array {
  const { width: w, height: h, slopes } = sketch;
  const { L, a, b } = sketch.calm;
  const n = w * h;
  const flow = resampleFlow(sketch.flow, w, h);
  const sigma = Math.max(0.6, width * 0.5);
  const step = sigma * 0.6;
  const narrow = new Float32Array(2 * REACH + 1);
  const wide = new Float32Array(2 * REACH + 1);
  let sumNarrow = 0;
  let sumWide = 0;
  for (let q = -REACH; q <= REACH; q++) {
    const d = q * step;
    sumNarrow += narrow[q + REACH] = exp((-d * d) / (2 * sigma * sigma));
    sumWide += wide[q + REACH] = exp((-d * d) / (2 * sigma * sigma * 2.56));
  }
  for (let q = 0; q <= 2 * REACH; q++) narrow[q] = narrow[q] / sumNarrow - wide[q] / sumWide;
  const signal = new Float32Array(n);
  for (let i = 0; i < n; i++) signal[i] = L[i] + 0.35 * (a[i] - 0.5 * b[i]);
  const near = blur(slopes.size, w, h, Math.max(1, REACH * step * 0.5));
  const breaks = rag > 0 ? noisePlane(w, h, 5 + 3 * width, seed, 2) : null;
  return within(() => {
    const [at, calm, tx, ty, taps] = [signal, near, flow.tx, flow.ty, narrow].map(put);
    const gaps = breaks ? put(breaks) : 0;
    const out = plane(n);
    const stride = Math.max(1, width * 0.8);
    kernels.outlineDepth(at, calm, tx, ty, w, h, taps, REACH, step, stride, CALM, gaps, rag, plane(n), out);
    return take(out, new Float32Array(n));
  });
}

/** How firmly ink lies where a line is drawn at all: a style with few lines draws fewer of them, not paler ones. */
function press(amount: number): number {
  return Math.min(1, 1.8 * amount);
}

/**
 * Draws outlines over the sheet, in place: dark on light, and paper-coloured within dark masses as far as the style has light lines. Along
 * the rim of a mass there is neither, for its own edge is the line.
 */
export function layOutlines(out: LabPlanes, sketch: Sketch, style: Style, areas: Areas | null, seed: number): void {
  const s = style.amounts;
  const { width: w, height: h, palette, assignment, u } = sketch;
  const paper = palette[assignment.ground];
  const dark = palette[0];
  const depth = outlineDepth(sketch, s.outlineWidth * u, s.outlineRag, seed);
  if (s.lightLines > LEAST) {
    const mass = massOf(sketch, areas);
    const around = blur(mass, w, h, Math.max(1, s.outlineWidth * u));
    for (let i = 0; i < depth.length; i++) depth[i] *= around[i] > 0.93 ? -1 : around[i] < 0.05 ? 1 : 0;
  }
  const full = resamplePlane({ width: w, height: h, data: depth }, out.width, out.height);
  // At full size the line's edge is drawn sharper, in step with the enlargement.
  const soft = 0.007 / Math.max(1, sketch.scale);
  const from = (amount: number): number => FAINTEST + (1 - amount) * (1 - amount) * BOLDER;
  const [open, drawn] = [from(s.lightLines), from(s.outline)];
  within(() => {
    const inks = put(Float32Array.of(paper.L, paper.a, paper.b, dark.L, dark.a, dark.b));
    inBlocks([out.L, out.a, out.b], [full], ([L, a, b, lines], count) =>
      kernels.layOutlines(
        lines,
        count,
        drawn - soft,
        drawn + soft,
        press(s.outline),
        open - soft,
        open + soft,
        press(s.lightLines),
        inks,
        L,
        a,
        b,
      ),
    );
  });
}

/** 1 where the sheet is nearer to the darkest ink than to the paper, at sketch size. */
function massOf({ palette, assignment, calm }: Sketch, areas: Areas | null): Float32Array {
  const middle = palette[0].L + 0.55 * (palette[assignment.ground].L - palette[0].L);
  const mass = new Float32Array(calm.L.length);
  for (let i = 0; i < mass.length; i++) mass[i] = (areas ? palette[areas.sketchIndex[i]].L : calm.L[i]) < middle ? 1 : 0;
  return mass;
}

/**
 * Thin keylines where flattening has lost an edge of the content, in place: in the next darker colour, or, inside the darkest, in the
 * lightest. An edge that only wandered by `wobble` (0–1) is not lost.
 */
export function keepLostEdges(out: LabPlanes, sketch: Sketch, areas: Areas, amount: number, wobble: number): void {
  const { width: w, height: h, u, content, parts, palette, slopes } = sketch;
  const full = within(() => {
    const lost = zeros(w * h);
    // An antialiased edge is as wide as that in small pictures too.
    const r = Math.max(2, Math.round((1.2 + 2.2 * wobble) * u));
    within(() => {
      const drawn = parts ? put(parts) : 0;
      // The soft rim of a shadow is steeper in a small picture, but no edge.
      const size = put(slopes.size);
      kernels.scale(size, w * h, Math.sqrt(Math.min(1, u)));
      kernels.lostEdges(size, put(content.L), drawn, put(areas.sketchIndex), w, h, r, lost);
    });
    blurAt(lost, w, h, 0.75 * u);
    const large = plane(out.width * out.height);
    interpolateAt(lost, w, h, placesAlong(w, out.width), placesAlong(h, out.height), large);
    return take(large, new Float32Array(out.width * out.height));
  });
  const partner = palette.map((c, j) => {
    let best = -1;
    palette.forEach((d, k) => {
      if (k !== j && d.share > 0.02 && d.L < c.L - 0.1 && (best < 0 || d.L > palette[best].L)) best = k;
    });
    if (best >= 0) return best;
    return palette.reduce((top, d, k) => (d.L > palette[top].L ? k : top), 0);
  });
  within(() => {
    const inks = put(Float32Array.from(partner.flatMap(j => [palette[j].L, palette[j].a, palette[j].b])));
    const [L, a, b, edges] = [out.L, out.a, out.b, full].map(put);
    kernels.layKeylines(edges, full.length, 0.2, 0.42, Math.min(1, 1.2 * amount), put(areas.index), inks, L, a, b);
    take(L, out.L);
    take(a, out.a);
    take(b, out.b);
  });
}
