import { blur } from '../image/filter.ts';
import type { LabPlanes } from '../image/types.ts';
import { length2 } from '../number/trig.ts';
import { fillHole } from '../prepare/fill.ts';
import { bringUp, cut, half, LONGEST, paste, sourcesOf, surroundings, type Field, type Level } from '../prepare/holes.ts';

/** Half the side of the patches that are copied. */
const REACH = 5;
/** A step through the pixels of a patch: a prime larger than their number, so that each is met once. */
const SCATTER = 127;
/** Squared difference of a pixel that the eye does not see. */
const ENOUGH = 0.00003;
/** How much the tone of a patch counts beside its known pixels. */
const TONED = 1.5;
/** A place farther off must be clearly more like, so that a filling comes from its own neighbourhood. */
const FAR = 0.0009;

/**
 * Fills a hole of a picture with whole patches copied from around it, in place, so that the filling is made of the same marks as the rest.
 * Where lines run into the hole they are carried on first (priority after Criminisi, Pérez & Toyama 2004); what tones it should have is
 * decided before, all at once, so that no line grows where the whole speaks against it. `hole` is 1 where the picture
 * is to be replaced. False when nothing whole is left to copy from; then nothing is changed.
 */
export function fillFromExamples(planes: LabPlanes, hole: Uint8Array, seed: number): boolean {
  const frame = surroundings(planes, hole);
  if (!frame) return true;
  const part = cut(planes, hole, frame);
  let coarse = part;
  while (Math.max(coarse.planes.width, coarse.planes.height) > LONGEST) coarse = half(coarse);
  const asked = coarse.hole.slice();
  const tones = tonesOf(coarse, seed);
  const field = tones && copyPatches(coarse, tones);
  if (!field) return false;
  if (coarse !== part) bringUp(part, { ...coarse, hole: asked }, field);
  paste(planes, part, frame);
  return true;
}

/** What tones the filling should have, place by place: those of a smooth filling that agrees with all around. Null when there is nothing to go by. */
function tonesOf({ planes, hole }: Level, seed: number): LabPlanes | null {
  const { width, height } = planes;
  const guide = { width, height, L: planes.L.slice(), a: planes.a.slice(), b: planes.b.slice() };
  if (!fillHole(guide, hole, seed)) return null;
  const soft = (plane: Float32Array): Float32Array => blur(plane, width, height, REACH * 0.8);
  return { width, height, L: soft(guide.L), a: soft(guide.a), b: soft(guide.b) };
}

/** Places that a patch may be copied from: those tried first, and 1 for every one. */
interface Sources {
  tried: Int32Array;
  whole: Uint8Array;
}

/** Fills the hole of one level, and says where every pixel of it came from; null when there is nowhere. */
function copyPatches(level: Level, tones: LabPlanes): Field | null {
  const { planes } = level;
  const { width: w, height: h, L, a, b } = planes;
  const all = sourcesOf(level, REACH);
  if (all.length === 0) return null;
  const whole = new Uint8Array(w * h);
  for (const i of all) whole[i] = 1;
  const few = all.filter(i => (i % w) % 2 === 0 && ((i / w) | 0) % 2 === 0);
  const sources: Sources = { tried: few.length > 0 ? few : all, whole };
  const open = level.hole.slice();
  const trust = Float32Array.from(open, v => 1 - v);
  const field = new Int32Array(w * h).fill(-1);
  let left = open.reduce((sum, v) => sum + v, 0);
  while (left > 0) {
    const at = nextPlace(open, trust, L, w, h);
    const from = mostLike(level, tones, open, at, sources);
    const [x, y] = [at % w, (at / w) | 0];
    const sure = meanTrust(trust, open, x, y, w, h);
    for (let dy = -REACH; dy <= REACH; dy++)
      for (let dx = -REACH; dx <= REACH; dx++) {
        if (x + dx < 0 || x + dx >= w || y + dy < 0 || y + dy >= h) continue;
        const i = at + dy * w + dx;
        if (!open[i]) continue;
        const j = from + dy * w + dx;
        L[i] = L[j];
        a[i] = a[j];
        b[i] = b[j];
        field[i] = j;
        open[i] = 0;
        trust[i] = sure;
        left--;
      }
  }
  return field;
}

/** The place on the rim of the hole that is best known and into which the strongest line runs. */
function nextPlace(open: Uint8Array, trust: Float32Array, L: Float32Array, w: number, h: number): number {
  let best = -1;
  let most = -1;
  const isOpen = (x: number, y: number): number => (x < 0 || x >= w || y < 0 || y >= h ? 0 : open[y * w + x]);
  for (let i = 0; i < open.length; i++) {
    if (!open[i]) continue;
    const x = i % w;
    const y = (i / w) | 0;
    if (isOpen(x - 1, y) + isOpen(x + 1, y) + isOpen(x, y - 1) + isOpen(x, y + 1) === 4) continue;
    const nx = isOpen(x + 1, y) - isOpen(x - 1, y);
    const ny = isOpen(x, y + 1) - isOpen(x, y - 1);
    const line = strongestAlong(open, L, x, y, w, h, nx, ny);
    const score = meanTrust(trust, open, x, y, w, h) * (0.06 + line);
    if (score > most) {
      most = score;
      best = i;
    }
  }
  // A hole that fills its whole part has no rim; any of its pixels will do.
  return best >= 0 ? best : open.indexOf(1);
}

/** How strongly the known marks beside a rim pixel run along its normal. */
function strongestAlong(
  open: Uint8Array,
  L: Float32Array,
  x: number,
  y: number,
  w: number,
  h: number,
  nx: number,
  ny: number,
): number {
  const long = length2(nx, ny) || 1;
  let most = 0;
  for (let dy = -2; dy <= 2; dy++)
    for (let dx = -2; dx <= 2; dx++) {
      const [px, py] = [x + dx, y + dy];
      if (px < 1 || py < 1 || px >= w - 1 || py >= h - 1) continue;
      const i = py * w + px;
      if (open[i] || open[i - 1] || open[i + 1] || open[i - w] || open[i + w]) continue;
      const gx = L[i + 1] - L[i - 1];
      const gy = L[i + w] - L[i - w];
      // The line runs across its gradient.
      const along = Math.abs(-gy * nx + gx * ny) / long;
      if (along > most) most = along;
    }
  return most;
}

function meanTrust(trust: Float32Array, open: Uint8Array, x: number, y: number, w: number, h: number): number {
  let sum = 0;
  let count = 0;
  for (let dy = -REACH; dy <= REACH; dy++)
    for (let dx = -REACH; dx <= REACH; dx++) {
      if (x + dx < 0 || x + dx >= w || y + dy < 0 || y + dy >= h) continue;
      const i = (y + dy) * w + x + dx;
      if (!open[i]) sum += trust[i];
      count++;
    }
  return sum / count;
}

/**
 * The middle of the whole patch that agrees best with what is known around a place; of equals the nearer. Every second place of every second
 * row is tried first, then those around the best of them.
 */
function mostLike({ planes }: Level, tones: LabPlanes, open: Uint8Array, at: number, { tried, whole }: Sources): number {
  const { width: w, height: h, L, a, b } = planes;
  const [x, y] = [at % w, (at / w) | 0];
  const known: number[] = [];
  for (let dy = -REACH; dy <= REACH; dy++)
    for (let dx = -REACH; dx <= REACH; dx++) {
      if (x + dx < 0 || x + dx >= w || y + dy < 0 || y + dy >= h) continue;
      if (!open[at + dy * w + dx]) known.push(dy * w + dx);
    }
  // Pixels from all over the patch first: what differs shows at once.
  const order = Int32Array.from(known, (_, k) => known[(k * SCATTER) % known.length]);
  const apart = (FAR * known.length) / Math.max(w, h);
  const toned = TONED * order.length;
  let best = tried[0];
  let least = Infinity;
  const offer = (from: number): void => {
    const tL = tones.L[from] - tones.L[at];
    const ta = tones.a[from] - tones.a[at];
    const tb = tones.b[from] - tones.b[at];
    let sum = toned * (tL * tL + ta * ta + tb * tb);
    if (sum >= least) return;
    sum += apart * (Math.abs((from % w) - x) + Math.abs(((from / w) | 0) - y));
    for (let k = 0; k < order.length && sum < least; k++) {
      const i = at + order[k];
      const j = from + order[k];
      const dL = L[i] - L[j];
      const da = a[i] - a[j];
      const db = b[i] - b[j];
      sum += dL * dL + da * da + db * db;
    }
    if (sum >= least) return;
    least = sum;
    best = from;
  };
  // From its own row outwards, until one is as like as makes no difference.
  const start = tried.findIndex(from => from >= at);
  const middle = start < 0 ? tried.length : start;
  const enough = ENOUGH * order.length;
  for (let k = 0; k < Math.max(middle, tried.length - middle) && least > enough; k++) {
    if (middle + k < tried.length) offer(tried[middle + k]);
    if (middle - 1 - k >= 0) offer(tried[middle - 1 - k]);
  }
  const first = best;
  for (const d of [-w - 1, -w, -w + 1, -1, 1, w - 1, w, w + 1]) if (whole[first + d]) offer(first + d);
  return best;
}
