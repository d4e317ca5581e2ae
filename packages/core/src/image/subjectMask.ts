import { kernels, plane, put, take, within } from '@zinc/kernels';
import { toLabPlanes } from '../colour/oklab.ts';
import { smoothstep } from '../number/scalar.ts';
import { blur, blurWide, resamplePlane } from './filter.ts';
import { resizePicture } from './resize.ts';
import { slopesOf } from './tensor.ts';
import type { LabPlanes, Picture, Plane } from './types.ts';

/** The mask is worked out on a copy this long. */
const SIDE = 192;
/** Rounds of scanning down and up again; three come near to the exact barriers. */
const ROUNDS = 3;
const BINS = 128;

/**
 * Where the subject of a picture is, 0–1 a pixel, guessed from how hard it is to reach each place from the border: along the easiest way
 * there, the colours met span more the more a thing stands apart (minimum barrier distance, Strand et al. 2013, by raster scans after
 * Zhang et al. 2015). Null when nothing stands apart clearly.
 */
export function subjectMask(picture: Picture): Float32Array | null {
  const small = smallSubjectMask(picture);
  return small && resamplePlane(small, picture.width, picture.height);
}

/** {@link subjectMask} on the small copy that it is worked out on. */
export function smallSubjectMask(picture: Picture): Plane | null {
  const { width, height } = picture;
  const k = Math.min(1, SIDE / Math.max(width, height));
  const w = Math.max(1, Math.round(width * k));
  const h = Math.max(1, Math.round(height * k));
  if (Math.min(w, h) < 24) return null;
  const small = toLabPlanes(w === width && h === height ? picture : resizePicture(picture, w, h));
  const apart = barriers(small, w, h);
  const limit = splitOf(apart, w, h);
  if (limit === null) return null;
  const soft = Float32Array.from(apart, v => smoothstep(limit * 0.72, limit * 1.18, v));
  const mask = solid(soft, slopesOf(small.L, w, h).size, w, h);
  if (mask) openPockets(mask, small);
  return mask && { width: w, height: h, data: mask };
}

/** How far each pixel stands apart from the border: the barriers of lightness and of both chroma axes together. */
function barriers(planes: LabPlanes, w: number, h: number): Float32Array {
  const out = new Float32Array(w * h);
  for (const [values, weight] of [
    [planes.L, 1],
    [planes.a, 1.6],
    [planes.b, 1.6],
  ] as const) {
    const cost = within(() => {
      const at = plane(w * h);
      kernels.barriers(put(blur(values, w, h, 1)), w, h, ROUNDS, plane(w * h), plane(w * h), at);
      return take(at, new Float32Array(w * h));
    });
    for (let i = 0; i < out.length; i++) out[i] += weight * cost[i];
  }
  return out;
}

/** The distance that parts subject from ground best (Otsu 1979), or null when the two are not far enough apart to be believed. */
function splitOf(apart: Float32Array, w: number, h: number): number | null {
  let most = 0;
  for (const v of apart) if (v > most) most = v;
  if (most < 0.08) return null;
  const counts = new Float64Array(BINS);
  for (const v of apart) counts[Math.min(BINS - 1, Math.floor((v / most) * BINS))]++;
  let below = 0;
  let sumBelow = 0;
  const sum = counts.reduce((s, c, k) => s + c * k, 0);
  let best = -1;
  let at = 0;
  for (let k = 0; k < BINS - 1; k++) {
    below += counts[k];
    sumBelow += counts[k] * k;
    const above = apart.length - below;
    if (below === 0 || above === 0) continue;
    const gap = sumBelow / below - (sum - sumBelow) / above;
    const between = below * above * gap * gap;
    if (between > best) {
      best = between;
      at = k;
    }
  }
  const limit = ((at + 1) / BINS) * most;
  let inside = 0;
  let sumIn = 0;
  let sumOut = 0;
  for (const v of apart) {
    if (v > limit) {
      inside++;
      sumIn += v;
    } else sumOut += v;
  }
  const outside = apart.length - inside;
  const share = inside / apart.length;
  if (share < 0.02 || share > 0.7 || sumIn / inside < 2.2 * (sumOut / outside) + 0.03) return null;
  // A pattern stands apart everywhere, a thing in one place: most of it lies within a box smaller than the sheet.
  let edge = 0;
  for (let x = 0; x < w; x++) edge += Number(apart[2 * w + x] > limit) + Number(apart[(h - 3) * w + x] > limit);
  for (let y = 0; y < h; y++) edge += Number(apart[y * w + 2] > limit) + Number(apart[y * w + w - 3] > limit);
  return edge / (2 * (w + h)) > 0.25 ? null : limit;
}

/**
 * Fills small holes of the subject and drops crumbs, and patches whose edge is as soft as a blurred backdrop's. Null when nothing of weight is
 * left: a pattern is many things and no subject.
 */
function solid(mask: Float32Array, slopes: Float32Array, w: number, h: number): Float32Array | null {
  const n = w * h;
  const inside = Uint8Array.from(mask, v => (v > 0.5 ? 1 : 0));
  const label = new Int32Array(n);
  const patches = [{ inside: false, size: 0, edges: 0, slope: 0, border: false }];
  const stack = new Int32Array(n);
  for (let start = 0; start < n; start++) {
    if (label[start]) continue;
    const id = patches.length;
    const patch = { inside: inside[start] === 1, size: 0, edges: 0, slope: 0, border: false };
    patches.push(patch);
    label[start] = id;
    let top = 0;
    stack[top++] = start;
    while (top > 0) {
      const i = stack[--top];
      const x = i % w;
      patch.size++;
      if (x === 0 || x === w - 1 || i < w || i >= n - w) patch.border = true;
      let edge = false;
      for (let d = 0; d < 4; d++) {
        if ((d === 0 && x === 0) || (d === 1 && x === w - 1)) continue;
        const j = d === 0 ? i - 1 : d === 1 ? i + 1 : d === 2 ? i - w : i + w;
        if (j < 0 || j >= n) continue;
        if (inside[j] !== inside[start]) edge = true;
        else if (!label[j]) {
          label[j] = id;
          stack[top++] = j;
        }
      }
      if (edge) {
        patch.edges++;
        patch.slope += slopes[i];
      }
    }
  }
  const things = patches.filter(p => p.inside).sort((p, q) => q.size - p.size);
  const total = things.reduce((sum, p) => sum + p.size, 0);
  if (things.length === 0 || things[0].size < 0.45 * total) return null;
  const crisp = (0.4 * things[0].slope) / Math.max(1, things[0].edges);
  const keeps = patches.map(p =>
    // A large hole may be a real one, such as between handle and body.
    p.inside ? p.size >= 0.0015 * n && p.slope >= crisp * p.edges : !p.border && p.size < 0.006 * n,
  );
  const kept = Float32Array.from(label, id => (keeps[id] ? 1 : 0));
  const near = blur(kept, w, h, 2);
  // The soft rim of what was dropped goes with it.
  return mask.map((v, i) => (kept[i] ? Math.max(v, inside[i] ? 0 : 1) : inside[i] ? 0 : v * Math.min(1, 6 * near[i])));
}

/** Takes calm places of the ground's own colour out of the mask: what is seen of the backdrop through a handle, for one. In place. */
function openPockets(mask: Float32Array, planes: LabPlanes): void {
  const { width: w, height: h } = planes;
  const weight = mask.map(v => (v < 0.5 ? 1 : 0));
  const reach = 0.18 * SIDE;
  const weights = blurWide(weight, w, h, reach);
  const ground = (values: Float32Array): Float32Array =>
    blurWide(
      values.map((v, i) => v * weight[i]),
      w,
      h,
      reach,
    );
  const [L, a, b] = [ground(planes.L), ground(planes.a), ground(planes.b)];
  const unrest = blur(slopesOf(blur(planes.L, w, h, 0.8), w, h).size, w, h, 1.5);
  const open = new Float32Array(mask.length);
  for (let i = 0; i < mask.length; i++) {
    if (weight[i] || weights[i] < 0.01) continue;
    const k = 1 / weights[i];
    const off = Math.abs(planes.L[i] - L[i] * k) + Math.abs(planes.a[i] - a[i] * k) + Math.abs(planes.b[i] - b[i] * k);
    open[i] = (1 - smoothstep(0.05, 0.09, off)) * (1 - smoothstep(0.008, 0.014, unrest[i]));
  }
  const soft = blur(open, w, h, 1.2);
  for (let i = 0; i < mask.length; i++) mask[i] *= 1 - smoothstep(0.35, 0.65, soft[i]);
}
