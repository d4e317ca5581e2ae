import { labDistance2 } from '../colour/oklab.ts';
import type { Lab, LabPlanes } from '../image/types.ts';
import { randomFor, type Random } from '../number/random.ts';
import { bringUp, cut, half, LONGEST, paste, sourcesOf, surroundings, take, type Field, type Level } from './holes.ts';

/** Half the side of a patch. */
const HALF = 3;
const SIDE = 2 * HALF + 1;
const SMALLEST = 24;
const ROUNDS = 4;
const SEARCHES = 3;

/**
 * Fills a hole of a picture from its surroundings, in place: patches are looked for that agree with what is around and with one another
 * (Wexler, Shechtman & Irani 2007), found by chance and by what the neighbours found (Barnes et al. 2009), coarse to fine. `hole` is 1
 * where the picture is to be replaced. False when nothing whole is left to fill it from; then nothing is changed.
 */
export function fillHole(planes: LabPlanes, hole: Uint8Array, seed: number): boolean {
  const frame = surroundings(planes, hole);
  if (!frame) return true;
  const random = randomFor(seed, 'fill');
  const part = cut(planes, hole, frame);
  const levels = [part];
  while (Math.max(levels[0].planes.width, levels[0].planes.height) > LONGEST) levels[0] = half(levels[0]);
  const searched = levels[0];
  while (Math.min(levels[0].planes.width, levels[0].planes.height) > 2 * SMALLEST && thick(levels[0]))
    levels.unshift(half(levels[0]));
  let field: Field | null = null;
  let before: Level | null = null;
  for (const level of levels) {
    if (sourcesOf(level, HALF).length === 0) continue;
    if (before) take(level, before);
    else flood(level);
    field = field && before ? widen(field, before, level) : null;
    for (let round = 0; round < ROUNDS; round++) {
      field = search(level, field, random);
      vote(level, field);
    }
    before = level;
  }
  if (!field || !before) return false;
  if (searched !== part) bringUp(part, searched, field);
  paste(planes, part, frame);
  return true;
}

/** Whether some place of the hole lies deeper than a patch reaches: then a coarser copy helps. */
function thick({ planes: { width: w, height: h }, hole }: Level): boolean {
  for (let y = HALF; y < h - HALF; y += 2)
    for (let x = HALF; x < w - HALF; x += 2) {
      const at = (dx: number, dy: number): number => hole[(y + dy * HALF) * w + x + dx * HALF];
      if (hole[y * w + x] && at(-1, 0) && at(1, 0) && at(0, -1) && at(0, 1)) return true;
    }
  return false;
}

/** A first guess: the hole's colours flow in from its edge. */
function flood({ planes, hole }: Level): void {
  const { width: w, height: h } = planes;
  const known = Uint8Array.from(hole, v => 1 - v);
  for (let left = true; left;) {
    left = false;
    const ring: number[] = [];
    for (let i = 0; i < known.length; i++) {
      if (known[i]) continue;
      const x = i % w;
      const near = [x > 0 ? i - 1 : -1, x < w - 1 ? i + 1 : -1, i - w, i + w].filter(j => j >= 0 && j < w * h && known[j]);
      if (near.length === 0) continue;
      ring.push(i);
      for (const key of ['L', 'a', 'b'] as const) planes[key][i] = near.reduce((s, j) => s + planes[key][j], 0) / near.length;
    }
    for (const i of ring) known[i] = 1;
    left = ring.length > 0;
  }
}

/** The same places on a finer copy. */
function widen(field: Field, from: Level, to: Level): Field {
  const [w, h] = [to.planes.width, to.planes.height];
  const [fw, fh] = [from.planes.width, from.planes.height];
  const out = new Int32Array(w * h).fill(-1);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const at = field[Math.min(fh - 1, y >> 1) * fw + Math.min(fw - 1, x >> 1)];
      if (at >= 0) out[y * w + x] = (2 * ((at / fw) | 0) + (y & 1)) * w + 2 * (at % fw) + (x & 1);
    }
  return out;
}

/** How unlike two patches are: squares of their differences, those of the known pixels counted more. Stops once above `most`. */
function unlike({ planes, hole }: Level, p: number, q: number, most: number): number {
  const { width: w, L, a, b } = planes;
  let sum = 0;
  for (let dy = -HALF; dy <= HALF; dy++) {
    const row = dy * w;
    for (let dx = -HALF; dx <= HALF; dx++) {
      const i = p + row + dx;
      const j = q + row + dx;
      const dL = L[i] - L[j];
      const da = a[i] - a[j];
      const db = b[i] - b[j];
      sum += (hole[i] ? 1 : 4) * (dL * dL + da * da + db * db);
    }
    if (sum > most) return sum;
  }
  return sum;
}

/** Patches that hold some of the hole look for where they could come from. */
function search(level: Level, before: Field | null, random: Random): Field {
  const { width: w, height: h } = level.planes;
  const sources = sourcesOf(level, HALF);
  const whole = new Uint8Array(w * h);
  for (const i of sources) whole[i] = 1;
  const field = new Int32Array(w * h).fill(-1);
  const cost = new Float32Array(w * h);
  const asked: number[] = [];
  for (let y = HALF; y < h - HALF; y++)
    for (let x = HALF; x < w - HALF; x++) {
      const i = y * w + x;
      if (whole[i]) continue;
      asked.push(i);
      const known = before ? before[i] : -1;
      field[i] = known >= 0 && known < w * h && whole[known] ? known : sources[(random() * sources.length) | 0];
      cost[i] = unlike(level, i, field[i], Infinity);
    }
  const offer = (i: number, from: number): void => {
    if (from < 0 || from >= w * h || !whole[from] || from === field[i]) return;
    const c = unlike(level, i, from, cost[i]);
    if (c < cost[i]) {
      cost[i] = c;
      field[i] = from;
    }
  };
  for (let pass = 0; pass < SEARCHES; pass++) {
    const back = pass % 2 === 1;
    const step = back ? 1 : -1;
    for (let k = 0; k < asked.length; k++) {
      const i = asked[back ? asked.length - 1 - k : k];
      for (const d of [step, step * w]) if (field[i + d] >= 0) offer(i, field[i + d] - d);
      for (let reach = Math.max(w, h) / 2; reach >= 1; reach /= 2.5) {
        const x = (field[i] % w) + Math.round((2 * random() - 1) * reach);
        const y = ((field[i] / w) | 0) + Math.round((2 * random() - 1) * reach);
        if (x >= 0 && x < w && y >= 0 && y < h) offer(i, y * w + x);
      }
    }
  }
  return field;
}

/** Every pixel of the hole becomes the mean of what the patches over it say; of two opinions the one nearer to what is there counts more. */
function vote({ planes, hole }: Level, field: Field): void {
  const { width: w, height: h } = planes;
  const out = { L: planes.L.slice(), a: planes.a.slice(), b: planes.b.slice() };
  const own: Lab = { L: 0, a: 0, b: 0 };
  const said: Lab = { L: 0, a: 0, b: 0 };
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      if (!hole[i]) continue;
      Object.assign(own, { L: planes.L[i], a: planes.a[i], b: planes.b[i] });
      let [L, a, b, total] = [0, 0, 0, 0];
      for (let k = 0; k < SIDE * SIDE; k++) {
        const dx = (k % SIDE) - HALF;
        const dy = ((k / SIDE) | 0) - HALF;
        if (x + dx < 0 || x + dx >= w || y + dy < 0 || y + dy >= h) continue;
        const from = field[i + dy * w + dx];
        if (from < 0) continue;
        const j = from - dy * w - dx;
        Object.assign(said, { L: planes.L[j], a: planes.a[j], b: planes.b[j] });
        const weight = 1 / (0.0006 + labDistance2(own, said));
        L += weight * said.L;
        a += weight * said.a;
        b += weight * said.b;
        total += weight;
      }
      if (total === 0) continue;
      out.L[i] = L / total;
      out.a[i] = a / total;
      out.b[i] = b / total;
    }
  planes.L.set(out.L);
  planes.a.set(out.a);
  planes.b.set(out.b);
}
