import { latticeHash, randomFor } from '../number/random.ts';
import { clamp } from '../number/scalar.ts';
import { length2 } from '../number/trig.ts';
import type { LabPlanes } from '../image/types.ts';
import type { Field } from './streamlines.ts';

export interface BrushSettings {
  /** Stroke radii in pixels, large first; each layer mends what the one before got wrong. */
  sizes: number[];
  length: number;
  bristle: number;
  seed: number;
}

/**
 * Paints `source` onto `target` with curved strokes in layers of falling size (Hertzmann 1998); later layers only go where the
 * painting still differs or where `detail` asks for it. Strokes stop where the colour beneath leaves theirs.
 */
export function paintStrokes(target: LabPlanes, source: LabPlanes, field: Field, detail: Float32Array, s: BrushSettings): void {
  const { width: w, height: h } = target;
  const px = new Float32Array(24);
  const py = new Float32Array(24);
  s.sizes.forEach((radius, layer) => {
    const random = randomFor(s.seed, `brush ${layer}`);
    const gap = Math.max(2, radius * 0.9);
    const nx = Math.ceil(w / gap);
    const order = new Uint32Array(nx * Math.ceil(h / gap)).map((_, i) => i);
    for (let i = order.length - 1; i > 0; i--) {
      const j = (random() * (i + 1)) | 0;
      const t = order[i];
      order[i] = order[j];
      order[j] = t;
    }
    for (let q = 0; q < order.length; q++) {
      let x = ((order[q] % nx) + random()) * gap;
      let y = (((order[q] / nx) | 0) + random()) * gap;
      const r1 = random();
      const r2 = random();
      const r3 = random();
      if (x >= w || y >= h) continue;
      const i0 = (y | 0) * w + (x | 0);
      if (layer > 0) {
        const off =
          Math.abs(source.L[i0] - target.L[i0]) +
          0.8 * (Math.abs(source.a[i0] - target.a[i0]) + Math.abs(source.b[i0] - target.b[i0]));
        if (off + detail[i0] * 0.3 < 0.05) continue;
      }
      const jitter = 0.02 + 0.06 * s.bristle;
      const L = source.L[i0] + (r1 - 0.5) * jitter * 0.6;
      const a = source.a[i0] + (r2 - 0.5) * jitter * 0.3;
      const b = source.b[i0] + (r3 - 0.5) * jitter * 0.3;
      const most = Math.min(23, Math.max(2, Math.round(s.length * (0.5 + r3))));
      const step = radius * 0.8;
      let count = 1;
      let vx0 = 0;
      let vy0 = 0;
      px[0] = x;
      py[0] = y;
      for (let k = 0; k < most; k++) {
        const i = clamp(y | 0, 0, h - 1) * w + clamp(x | 0, 0, w - 1);
        let vx = field.tx[i];
        let vy = field.ty[i];
        if ((k === 0 && r1 < 0.5) || vx * vx0 + vy * vy0 < 0) {
          vx = -vx;
          vy = -vy;
        }
        vx = 0.6 * vx + 0.4 * vx0;
        vy = 0.6 * vy + 0.4 * vy0;
        const m = length2(vx, vy) || 1;
        vx /= m;
        vy /= m;
        x += vx * step;
        y += vy * step;
        if (x < -radius || y < -radius || x > w + radius || y > h + radius) break;
        const j = clamp(y | 0, 0, h - 1) * w + clamp(x | 0, 0, w - 1);
        if (k > 0 && Math.abs(source.L[j] - L) + Math.abs(source.a[j] - a) + Math.abs(source.b[j] - b) > 0.16) break;
        px[count] = x;
        py[count] = y;
        count++;
        vx0 = vx;
        vy0 = vy;
      }
      stampStroke(target, px, py, count, radius, L, a, b, s.bristle, (r2 * 1e6) | 0);
    }
  });
}

function stampStroke(
  target: LabPlanes,
  px: Float32Array,
  py: Float32Array,
  count: number,
  radius: number,
  L: number,
  a: number,
  b: number,
  bristle: number,
  hairs: number,
): void {
  const { width: w, height: h } = target;
  let along = 0;
  const total = count * radius * 0.8;
  for (let k = 0; k < count - 1; k++) {
    const dx = px[k + 1] - px[k];
    const dy = py[k + 1] - py[k];
    const len = length2(dx, dy) || 1;
    const ux = dx / len;
    const uy = dy / len;
    const xa = Math.max(0, Math.floor(Math.min(px[k], px[k + 1]) - radius));
    const xb = Math.min(w - 1, Math.ceil(Math.max(px[k], px[k + 1]) + radius));
    const ya = Math.max(0, Math.floor(Math.min(py[k], py[k + 1]) - radius));
    const yb = Math.min(h - 1, Math.ceil(Math.max(py[k], py[k + 1]) + radius));
    for (let y = ya; y <= yb; y++)
      for (let x = xa; x <= xb; x++) {
        const ex = x - px[k];
        const ey = y - py[k];
        const t = ex * ux + ey * uy;
        if ((t < 0 && k > 0) || (t >= len && k < count - 2)) continue;
        const d = ey * ux - ex * uy;
        const over = t < 0 ? t : t > len ? t - len : 0;
        const r2 = d * d + over * over;
        if (r2 > radius * radius) continue;
        const hair = latticeHash(Math.round(d * 1.4), hairs, 3) - 0.5;
        const dry = (along + t) / total;
        let alpha = Math.min(1, (1 - Math.sqrt(r2) / radius) * 3.5) * 0.94;
        alpha *= 1 - bristle * 0.6 * Math.max(0, dry - 0.35 + hair * 0.8);
        if (alpha <= 0) continue;
        const i = y * w + x;
        target.L[i] += (L + hair * bristle * 0.07 + (d / radius) * bristle * 0.02 - target.L[i]) * alpha;
        target.a[i] += (a - target.a[i]) * alpha;
        target.b[i] += (b - target.b[i]) * alpha;
      }
    along += len;
  }
}
