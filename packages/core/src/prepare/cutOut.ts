import { labDistance2, toLabPlanes } from '../colour/oklab.ts';
import { blur, resamplePlane } from '../image/filter.ts';
import { resizePicture } from '../image/resize.ts';
import { subjectMask } from '../image/subjectMask.ts';
import type { Lab, LabPlanes, Picture } from '../image/types.ts';
import { clamp, smoothstep } from '../number/scalar.ts';
import { drawStroke } from './strokes.ts';
import { PreparationError, type Preparation } from './types.ts';

/** The cut is worked out on a copy this long, and its rim at full size. */
const SIDE = 448;
const CHROMA_WEIGHT = 1.8;
/** Colours of the border that are told apart, OKLab. */
const APART = 0.05;
const MOST_GROUNDS = 5;
/** How much of the border few colours must cover for the background to count as plain. */
const PLAIN = 0.6;
const [UNKNOWN, STAYS, GOES] = [0, 1, 2];

/**
 * Cuts away a plain or nearly plain background: what can be reached from the border over the border's own colours, or over slow changes
 * of them, goes; along the rim each pixel is parted into thing and ground by their local colours. Throws PreparationError when the
 * background is not plain and no stroke says what goes, or when nothing would be left.
 */
export function cutOut(picture: Picture, how: NonNullable<Preparation['cutOut']>): Picture {
  const { width, height } = picture;
  const k = Math.min(1, SIDE / Math.max(width, height));
  const w = Math.max(1, Math.round(width * k));
  const h = Math.max(1, Math.round(height * k));
  const small = k === 1 ? picture : resizePicture(picture, w, h);
  const planes = toLabPlanes(small);
  const said = new Uint8Array(w * h);
  for (const s of how.strokes) drawStroke(said, w, h, s, s.stays ? STAYS : GOES);
  const grounds = groundsOf(planes, said);
  const limit = 0.025 + 0.0022 * how.reach;
  const thing = subjectMask(small);
  const off = distances(planes, grounds.colours);
  // What plainly stands apart is hard to enter, even where it has the ground's colour; what plainly does not is easy.
  if (thing)
    for (let i = 0; i < off.length; i++) off[i] = off[i] * (0.5 + 2.5 * thing[i]) + 0.12 * smoothstep(0.4, 0.9, thing[i]);
  if (!grounds.plain && !thing && !said.includes(GOES))
    throw new PreparationError(
      'cutOut',
      'The background is not plain enough to be found by itself. Go over it with the brush that takes away.',
    );
  const ground = reach(planes, off, said, limit);
  if (how.pockets) openPockets(ground, off, said, w, h, limit);
  dropCrumbs(ground, said, w, h);
  if (ground.every(v => v === 1))
    throw new PreparationError('cutOut', 'Nothing would be left of the picture. Take a smaller reach, or brush in what stays.');
  return partRim(picture, planes, ground, said);
}

/** The few colours of the border (and of what the brush takes away), and whether they are most of it. */
function groundsOf({ width: w, height: h, L, a, b }: LabPlanes, said: Uint8Array): { colours: Lab[]; plain: boolean } {
  const found: { lab: Lab; count: number }[] = [];
  let total = 0;
  const add = (i: number): void => {
    if (said[i] === STAYS) return;
    total++;
    const c = { L: L[i], a: a[i], b: b[i] };
    const near = found.find(f => labDistance2(f.lab, c, CHROMA_WEIGHT) < APART * APART);
    if (!near) found.push({ lab: c, count: 1 });
    else {
      near.count++;
      const t = 1 / Math.min(40, near.count);
      near.lab = {
        L: near.lab.L + t * (c.L - near.lab.L),
        a: near.lab.a + t * (c.a - near.lab.a),
        b: near.lab.b + t * (c.b - near.lab.b),
      };
    }
  };
  for (let i = 0; i < w * h; i++) {
    const x = i % w;
    const y = (i / w) | 0;
    if (x < 3 || y < 3 || x >= w - 3 || y >= h - 3 || said[i] === GOES) add(i);
  }
  found.sort((p, q) => q.count - p.count);
  const most = found.slice(0, MOST_GROUNDS).filter(f => f.count > 0.03 * total);
  const covered = most.reduce((s, f) => s + f.count, 0) / Math.max(1, total);
  return { colours: most.map(f => f.lab), plain: covered >= PLAIN };
}

/** How far each pixel is from the nearest colour of the ground. */
function distances({ L, a, b }: LabPlanes, colours: Lab[]): Float32Array {
  return Float32Array.from(L, (v, i) => {
    let best = 9;
    for (const c of colours) best = Math.min(best, labDistance2({ L: v, a: a[i], b: b[i] }, c, CHROMA_WEIGHT));
    return Math.sqrt(best);
  });
}

/** Everything that can be reached from the border, and from what the brush takes away, without a jump. */
function reach({ width: w, height: h, L, a, b }: LabPlanes, off: Float32Array, said: Uint8Array, limit: number): Uint8Array {
  const ground = new Uint8Array(w * h);
  const stack = new Int32Array(w * h);
  let top = 0;
  const put = (i: number): void => {
    ground[i] = 1;
    stack[top++] = i;
  };
  for (let i = 0; i < w * h; i++) {
    const x = i % w;
    const border = x === 0 || x === w - 1 || i < w || i >= w * (h - 1);
    if (said[i] === GOES || (border && said[i] === UNKNOWN && off[i] < limit)) put(i);
  }
  while (top > 0) {
    const i = stack[--top];
    const x = i % w;
    for (const j of [x > 0 ? i - 1 : -1, x < w - 1 ? i + 1 : -1, i - w, i + w]) {
      if (j < 0 || j >= w * h || ground[j] || said[j] === STAYS) continue;
      const step = Math.abs(L[i] - L[j]) + Math.abs(a[i] - a[j]) + Math.abs(b[i] - b[j]);
      if (off[j] < limit || (off[j] < 2.2 * limit && step < 0.01)) put(j);
    }
  }
  return ground;
}

/** Patches of the ground's colour that are shut in: seen through a handle or between legs. */
function openPockets(ground: Uint8Array, off: Float32Array, said: Uint8Array, w: number, h: number, limit: number): void {
  for (const patch of patchesOf(i => !ground[i] && said[i] !== STAYS && off[i] < 0.7 * limit, w, h)) {
    const mean = patch.reduce((s, i) => s + off[i], 0) / patch.length;
    if (patch.length > 0.0006 * w * h && mean < 0.4 * limit) for (const i of patch) ground[i] = 1;
  }
}

/** Specks of either kind go over to the other. */
function dropCrumbs(ground: Uint8Array, said: Uint8Array, w: number, h: number): void {
  for (const of of [0, 1])
    for (const patch of patchesOf(i => ground[i] === of, w, h))
      if (patch.length < 0.0004 * w * h && !patch.some(i => said[i] !== UNKNOWN)) for (const i of patch) ground[i] = 1 - of;
}

function patchesOf(has: (i: number) => boolean, w: number, h: number): number[][] {
  const seen = new Uint8Array(w * h);
  const out: number[][] = [];
  for (let start = 0; start < w * h; start++) {
    if (seen[start] || !has(start)) continue;
    const patch = [start];
    seen[start] = 1;
    for (let k = 0; k < patch.length; k++) {
      const i = patch[k];
      const x = i % w;
      for (const j of [x > 0 ? i - 1 : -1, x < w - 1 ? i + 1 : -1, i - w, i + w])
        if (j >= 0 && j < w * h && !seen[j] && has(j)) {
          seen[j] = 1;
          patch.push(j);
        }
    }
    out.push(patch);
  }
  return out;
}

/**
 * Writes the cut as transparency. Near the rim a pixel's colour is read as a mixture of what is inside and outside there; how much is inside
 * becomes its opacity, and the ground's part is taken out of its colour, so that no fringe is left.
 */
function partRim(picture: Picture, small: LabPlanes, ground: Uint8Array, said: Uint8Array): Picture {
  const { width, height, data } = picture;
  const { width: w, height: h } = small;
  const inside = Float32Array.from(ground, v => 1 - v);
  const grow = (of: Float32Array): Float32Array => resamplePlane({ width: w, height: h, data: of }, width, height);
  const rim = blur(inside, w, h, 1.6);
  // Colours well inside and well outside, carried towards the rim.
  const sure = (from: number, to: number): Float32Array => Float32Array.from(rim, v => smoothstep(from, to, v));
  const bytes = [0, 1, 2].map(c => planeOfBytes(picture, c, w, h));
  const carry = (weight: Float32Array): Float32Array[] => {
    const total = blur(weight, w, h, 4);
    return bytes.map(p => {
      const sum = blur(
        p.map((v, i) => v * weight[i]),
        w,
        h,
        4,
      );
      return grow(sum.map((v, i) => (total[i] > 1e-4 ? v / total[i] : p[i])));
    });
  };
  const things = carry(sure(0.85, 0.99));
  const grounds = carry(sure(0.15, 0.01));
  const edge = grow(rim);
  const fixed = grow(Float32Array.from(said, v => (v === UNKNOWN ? 0 : 1)));
  const out = new Uint8ClampedArray(data);
  for (let i = 0; i < width * height; i++) {
    let alpha = edge[i] > 0.97 ? 1 : edge[i] < 0.03 ? 0 : smoothstep(0.25, 0.75, edge[i]);
    if (alpha > 0 && alpha < 1 && fixed[i] < 0.5) {
      let [dot, long] = [0, 0];
      for (let c = 0; c < 3; c++) {
        const d = things[c][i] - grounds[c][i];
        dot += (data[i * 4 + c] - grounds[c][i]) * d;
        long += d * d;
      }
      // Where thing and ground look the same, only the place can tell.
      const trust = smoothstep(400, 2500, long);
      alpha += trust * (clamp(dot / Math.max(1, long)) - alpha);
    }
    if (alpha > 0.02 && alpha < 0.98)
      for (let c = 0; c < 3; c++) out[i * 4 + c] = (data[i * 4 + c] - (1 - alpha) * grounds[c][i]) / alpha;
    out[i * 4 + 3] = data[i * 4 + 3] * alpha;
  }
  return { width, height, data: out };
}

function planeOfBytes(picture: Picture, channel: number, w: number, h: number): Float32Array {
  const small = picture.width === w ? picture : resizePicture(picture, w, h);
  return Float32Array.from({ length: w * h }, (_, i) => small.data[i * 4 + channel]);
}
