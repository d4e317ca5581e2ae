import { gather } from './lanes';

const STEPS = f32x4(0, 1, 2, 3);
const HAIRS_LAST = 127;
const TILE_MASK = 255;

let TL: usize = 0;
let TA: usize = 0;
let TB: usize = 0;
let W: i32 = 0;
let H: i32 = 0;
let areas: usize = 0;
let hairs: usize = 0;
let tile: usize = 0;
let streak: f32 = 0;
let bristle: f32 = 0;
let relief: f32 = 0;
let tooth: f32 = 0;

/** What all strokes of a pass share: planes L, a, b, plane of areas or 0, 256 hairs, tile of paper tooth or 0, and amounts from 0 to 1. */
export function loadBrush(
  L: usize,
  a: usize,
  b: usize,
  width: i32,
  height: i32,
  index: usize,
  hairTable: usize,
  toothTile: usize,
  streakAmount: f32,
  bristleAmount: f32,
  reliefAmount: f32,
  toothAmount: f32,
): void {
  TL = L;
  TA = a;
  TB = b;
  W = width;
  H = height;
  areas = index;
  hairs = hairTable;
  tile = toothTile;
  streak = streakAmount;
  bristle = bristleAmount;
  relief = reliefAmount;
  tooth = toothAmount;
}

/**
 * One stroke through `count` points, laid piece by piece and row by row between the edges of each piece. `first` is its first hair; it stays
 * inside pixels whose area is `area` when there are areas. At `form` stand radius, L, a, b, hairs a pixel and pressure; then the points' x
 * and from `most` numbers on their y. (Numbers handed over one by one cost more than a short stroke.)
 */
export function stroke(form: usize, most: i32, count: i32, first: i32, area: i32): void {
  const radius = load<f32>(form);
  const L = load<f32>(form, 4);
  const a = load<f32>(form, 8);
  const b = load<f32>(form, 12);
  const perHair = load<f32>(form, 16);
  const pressure = load<f32>(form, 20);
  const px = form + 24;
  const py = px + ((<usize>most) << 2);
  const inv = f32(1) / radius;
  const total = max(f32(1), f32(count - 1) * radius * f32(1.3));
  const areaLanes = i32x4.splat(area);
  const own = hairs + ((<usize>first) << 2);
  let along: f32 = 0;
  for (let k = 0; k < count - 1; k++) {
    const o = (<usize>k) << 2;
    const x0 = load<f32>(px + o);
    const y0 = load<f32>(py + o);
    const dx = load<f32>(px + o, 4) - x0;
    const dy = load<f32>(py + o, 4) - y0;
    let len = sqrt<f32>(dx * dx + dy * dy);
    if (len === 0) len = 1;
    const ux = dx / len;
    const uy = dy / len;
    const from: f32 = (k === 0 ? f32(-0.75) : f32(-0.3)) * radius;
    const to: f32 = len + (k === count - 2 ? f32(0.75) : f32(0.3)) * radius;
    const reachY = abs<f32>(ux) * radius;
    const ya = max(0, <i32>ceil<f32>(y0 + min<f32>(uy * from, uy * to) - reachY));
    const yb = min(H - 1, <i32>floor<f32>(y0 + max<f32>(uy * from, uy * to) + reachY));
    const ridge: f32 = uy - ux;
    for (let y = ya; y <= yb; y++) {
      const ey: f32 = f32(y) - y0;
      // Both the distance across and the place along change in a straight line over a row.
      let xa: f32 = -1e9;
      let xb: f32 = 1e9;
      if (abs<f32>(uy) > 1e-4) {
        const p = (ey * ux - radius) / uy;
        const q = (ey * ux + radius) / uy;
        xa = min<f32>(p, q);
        xb = max<f32>(p, q);
      } else if (abs<f32>(ey) > radius) continue;
      if (abs<f32>(ux) > 1e-4) {
        const p = (from - ey * uy) / ux;
        const q = (to - ey * uy) / ux;
        xa = max<f32>(xa, min<f32>(p, q));
        xb = min<f32>(xb, max<f32>(p, q));
      } else if (ey * uy < from || ey * uy > to) continue;
      const start = max(0, <i32>ceil<f32>(x0 + xa));
      const end = min(W - 1, <i32>floor<f32>(x0 + xb));
      const row = y * W;
      for (let x = start; x <= end; x += 4) {
        const i = row + x;
        const at = (<usize>i) << 2;
        const ex = f32x4.add(f32x4.splat(f32(x) - x0), STEPS);
        let live = f32x4.le(f32x4.add(f32x4.splat(<f32>x), STEPS), f32x4.splat(<f32>end));
        if (areas) {
          const here = i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(areas + <usize>i)));
          live = v128.and(live, i32x4.eq(here, areaLanes));
          if (!v128.any_true(live)) continue;
        }
        const t = f32x4.add(f32x4.mul(ex, f32x4.splat(ux)), f32x4.splat(ey * uy));
        const d = f32x4.sub(f32x4.splat(ey * ux), f32x4.mul(ex, f32x4.splat(uy)));
        const across = f32x4.mul(d, f32x4.splat(inv));
        const edge = f32x4.sub(f32x4.splat(1), f32x4.abs(across));
        const over = f32x4.max(f32x4.splat(0), f32x4.max(f32x4.neg(t), f32x4.sub(t, f32x4.splat(len))));
        const which = i32x4.min_s(
          i32x4.splat(HAIRS_LAST),
          i32x4.max_s(
            i32x4.splat(0),
            i32x4.trunc_sat_f32x4_s(f32x4.mul(f32x4.add(d, f32x4.splat(radius)), f32x4.splat(perHair))),
          ),
        );
        const hair = gather(
          own + ((<usize>i32x4.extract_lane(which, 0)) << 2),
          own + ((<usize>i32x4.extract_lane(which, 1)) << 2),
          own + ((<usize>i32x4.extract_lane(which, 2)) << 2),
          own + ((<usize>i32x4.extract_lane(which, 3)) << 2),
        );
        // Ends are ragged: each hair lifts off at its own place.
        let alpha = f32x4.sub(
          f32x4.mul(edge, f32x4.splat(4)),
          f32x4.mul(f32x4.mul(over, f32x4.splat(inv)), f32x4.add(f32x4.splat(1.6), f32x4.mul(hair, f32x4.splat(2.4)))),
        );
        alpha = f32x4.min(alpha, f32x4.splat(1));
        const run = f32x4.div(f32x4.add(f32x4.splat(along), t), f32x4.splat(total));
        const dry = f32x4.max(f32x4.splat(0), f32x4.add(f32x4.sub(run, f32x4.splat(0.4)), f32x4.mul(hair, f32x4.splat(1.1))));
        alpha = f32x4.mul(alpha, f32x4.sub(f32x4.splat(1), f32x4.mul(dry, f32x4.splat(bristle * f32(0.8)))));
        if (tile) {
          const line = tile + ((<usize>((y & TILE_MASK) * (TILE_MASK + 1))) << 2);
          const grain = gather(
            line + ((<usize>(x & TILE_MASK)) << 2),
            line + ((<usize>((x + 1) & TILE_MASK)) << 2),
            line + ((<usize>((x + 2) & TILE_MASK)) << 2),
            line + ((<usize>((x + 3) & TILE_MASK)) << 2),
          );
          const held = f32x4.min(
            f32x4.splat(1),
            f32x4.max(f32x4.splat(0), f32x4.mul(f32x4.add(grain, f32x4.splat(pressure - 1)), f32x4.splat(4))),
          );
          alpha = f32x4.mul(alpha, f32x4.add(f32x4.splat(1 - tooth), f32x4.mul(held, f32x4.splat(tooth))));
        }
        alpha = v128.and(alpha, v128.and(live, f32x4.gt(alpha, f32x4.splat(0.02))));
        // Light falls from the upper left on paint that stands up.
        const side = v128.bitselect(
          f32x4.splat(0.11),
          f32x4.splat(-0.13),
          f32x4.gt(f32x4.mul(across, f32x4.splat(ridge)), f32x4.splat(0)),
        );
        const lit = f32x4.mul(
          f32x4.splat(relief),
          f32x4.add(f32x4.mul(hair, f32x4.splat(0.02)), v128.and(side, f32x4.lt(edge, f32x4.splat(0.4)))),
        );
        const vL = v128.load(TL + at);
        const va = v128.load(TA + at);
        const vb = v128.load(TB + at);
        const tone = f32x4.add(f32x4.add(f32x4.splat(L), f32x4.mul(hair, f32x4.splat(streak))), lit);
        v128.store(TL + at, f32x4.add(vL, f32x4.mul(f32x4.sub(tone, vL), alpha)));
        v128.store(TA + at, f32x4.add(va, f32x4.mul(f32x4.sub(f32x4.splat(a), va), alpha)));
        v128.store(TB + at, f32x4.add(vb, f32x4.mul(f32x4.sub(f32x4.splat(b), vb), alpha)));
      }
    }
    along += len;
  }
}

/** Marks one antialiased segment whose half-width goes from `r0` to `r1` into a coverage plane (the larger stays). */
export function segment(cover: usize, w: i32, h: i32, x0: f32, y0: f32, r0: f32, x1: f32, y1: f32, r1: f32): void {
  const reach = max<f32>(r0, r1) + 1;
  const xa = max(0, <i32>floor<f32>(min<f32>(x0, x1) - reach));
  const xb = min(w - 1, <i32>ceil<f32>(max<f32>(x0, x1) + reach));
  const ya = max(0, <i32>floor<f32>(min<f32>(y0, y1) - reach));
  const yb = min(h - 1, <i32>ceil<f32>(max<f32>(y0, y1) + reach));
  const dx = x1 - x0;
  const dy = y1 - y0;
  const inv = f32(1) / (dx * dx + dy * dy + f32(1e-9));
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  for (let y = ya; y <= yb; y++) {
    const ey = f32(y) - y0;
    for (let x = xa; x <= xb; x += 4) {
      const ex = f32x4.add(f32x4.splat(f32(x) - x0), STEPS);
      const live = f32x4.le(f32x4.add(f32x4.splat(<f32>x), STEPS), f32x4.splat(<f32>xb));
      let t = f32x4.mul(f32x4.add(f32x4.mul(ex, f32x4.splat(dx)), f32x4.splat(ey * dy)), f32x4.splat(inv));
      t = f32x4.max(zero, f32x4.min(one, t));
      const fx = f32x4.sub(ex, f32x4.mul(t, f32x4.splat(dx)));
      const fy = f32x4.sub(f32x4.splat(ey), f32x4.mul(t, f32x4.splat(dy)));
      const r = f32x4.add(f32x4.splat(r0), f32x4.mul(t, f32x4.splat(r1 - r0)));
      let c = f32x4.sub(f32x4.add(r, f32x4.splat(0.5)), f32x4.sqrt(f32x4.add(f32x4.mul(fx, fx), f32x4.mul(fy, fy))));
      c = f32x4.max(zero, f32x4.min(one, c));
      // A line thinner than a pixel is fainter.
      c = f32x4.mul(c, f32x4.min(one, f32x4.add(r, r)));
      const p = cover + ((<usize>(y * w + x)) << 2);
      v128.store(p, f32x4.max(v128.load(p), v128.and(c, live)));
    }
  }
}
