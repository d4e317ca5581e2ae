import { blur, resamplePlane } from '../image/filter.ts';
import { resampleFlow } from '../image/tensor.ts';
import type { LabPlanes } from '../image/types.ts';
import { exp, length2 } from '../number/trig.ts';
import { noisePlane } from '../number/noise.ts';
import { smoothstep } from '../number/scalar.ts';
import type { Style } from '../mix/style.ts';
import type { Areas } from './flat.ts';
import type { Sketch } from './sketch.ts';

const REACH = 6;
/** Far from any edge there is no line; pixels calmer than this are passed over. */
const CALM = 0.0012;

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
  const across = new Float32Array(n);
  const near = blur(slopes.size, w, h, Math.max(1, REACH * step * 0.5));
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (near[i] < CALM) continue;
      const nx = -flow.ty[i] * step;
      const ny = flow.tx[i] * step;
      let p = 0;
      for (let k = -REACH; k <= REACH; k++) {
        let sx = (x + nx * k + 0.5) | 0;
        let sy = (y + ny * k + 0.5) | 0;
        sx = sx < 0 ? 0 : sx >= w ? w - 1 : sx;
        sy = sy < 0 ? 0 : sy >= h ? h - 1 : sy;
        p += signal[sy * w + sx] * narrow[k + REACH];
      }
      across[i] = p;
    }
  const breaks = rag > 0 ? noisePlane(w, h, 5 + 3 * width, seed, 2) : null;
  const out = new Float32Array(n);
  const along = 4;
  const stride = Math.max(1, width * 0.8);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (across[i] > 0.004 || near[i] < CALM) continue;
      let sum = across[i];
      let weights = 1;
      for (let direction = -1; direction <= 1; direction += 2) {
        let px = x;
        let py = y;
        let vx = flow.tx[i] * direction;
        let vy = flow.ty[i] * direction;
        for (let k = 1; k <= along; k++) {
          px += vx * stride;
          py += vy * stride;
          if (px < 0 || py < 0 || px >= w || py >= h) break;
          const j = (py | 0) * w + (px | 0);
          const weight = 1 - k / (along + 2);
          sum += across[j] * weight;
          weights += weight;
          const turn = flow.tx[j] * vx + flow.ty[j] * vy < 0 ? -1 : 1;
          vx = flow.tx[j] * turn;
          vy = flow.ty[j] * turn;
        }
      }
      out[i] = -sum / weights - (breaks ? rag * 0.005 * (0.4 + breaks[i]) : 0);
    }
  return out;
}

/** Draws outlines over the sheet, in place: dark on light, and paper-coloured inside darks as far as the style has light lines. */
export function layOutlines(out: LabPlanes, sketch: Sketch, style: Style, seed: number): void {
  const s = style.amounts;
  const { palette, assignment, u } = sketch;
  const paper = palette[assignment.ground];
  const dark = palette[0];
  const depth = outlineDepth(sketch, s.outlineWidth * u, s.outlineRag, seed);
  const full = resamplePlane({ width: sketch.width, height: sketch.height, data: depth }, out.width, out.height);
  const span = Math.max(0.1, paper.L - dark.L);
  // At full size the line's edge is drawn sharper, in step with the enlargement.
  const soft = 0.014 / Math.max(1, sketch.scale);
  for (let i = 0; i < full.length; i++) {
    const c = smoothstep(0.013 - soft * 0.5, 0.013 + soft * 0.5, full[i]);
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

/**
 * Thin keylines where flattening has lost an edge of the content, in place: in the next darker colour, or, inside the darkest, in the
 * lightest.
 */
export function keepLostEdges(out: LabPlanes, sketch: Sketch, areas: Areas, amount: number): void {
  const { width: w, height: h, u, content, parts, palette, slopes } = sketch;
  const lost = new Float32Array(w * h);
  const r = Math.max(1, Math.round(1.2 * u));
  const { sketchIndex } = areas;
  for (let y = r; y < h - r; y++)
    for (let x = r; x < w - r; x++) {
      const i = y * w + x;
      let edge = smoothstep(0.022, 0.06, slopes.size[i]);
      if (parts && (parts[i] !== parts[i + 1] || parts[i] !== parts[i + w])) {
        const step = length2(content.L[i + 1] - content.L[i - 1], content.L[i + w] - content.L[i - w]);
        edge = Math.max(edge, smoothstep(0.01, 0.05, step) * 0.95);
      }
      if (edge <= 0) continue;
      const j = sketchIndex[i];
      const same =
        sketchIndex[i + r] === j && sketchIndex[i - r] === j && sketchIndex[i + r * w] === j && sketchIndex[i - r * w] === j;
      if (same) lost[i] = edge;
    }
  const full = resamplePlane({ width: w, height: h, data: blur(lost, w, h, 0.75 * u) }, out.width, out.height);
  const partner = palette.map((c, j) => {
    let best = -1;
    palette.forEach((d, k) => {
      if (k !== j && d.share > 0.02 && d.L < c.L - 0.1 && (best < 0 || d.L > palette[best].L)) best = k;
    });
    if (best >= 0) return best;
    return palette.reduce((top, d, k) => (d.L > palette[top].L ? k : top), 0);
  });
  const { index } = areas;
  for (let i = 0; i < full.length; i++) {
    if (full[i] < 0.15) continue;
    const c = smoothstep(0.2, 0.42, full[i]) * amount;
    const ink = palette[partner[index[i]]];
    out.L[i] += (ink.L - out.L[i]) * c;
    out.a[i] += (ink.a - out.a[i]) * c;
    out.b[i] += (ink.b - out.b[i]) * c;
  }
}
