import { gather, scatter } from './lanes';

function boxRows(from: usize, to: usize, w: i32, h: i32, radius: i32): void {
  const side = 2 * radius + 1;
  const k = f32x4.splat(f32(1) / <f32>side);
  const last = w - 1;
  const stride: usize = (<usize>w) << 2;
  let y = 0;
  for (; y < h; y += 4) {
    // Rows past the last are done as the last once more, so that four always go together.
    const r1: usize = min(y + 1, h - 1);
    const r2: usize = min(y + 2, h - 1);
    const r3: usize = min(y + 3, h - 1);
    const p0 = from + <usize>y * stride;
    const p1 = from + r1 * stride;
    const p2 = from + r2 * stride;
    const p3 = from + r3 * stride;
    const q0 = to + <usize>y * stride;
    const q1 = to + r1 * stride;
    const q2 = to + r2 * stride;
    const q3 = to + r3 * stride;
    let sum = f32x4.mul(gather(p0, p1, p2, p3), f32x4.splat(<f32>radius));
    for (let x = 0; x < radius; x++) {
      const o = (<usize>min(x, last)) << 2;
      sum = f32x4.add(sum, gather(p0 + o, p1 + o, p2 + o, p3 + o));
    }
    for (let x = 0; x < w; x++) {
      const o = (<usize>x) << 2;
      const e = (<usize>min(x + radius, last)) << 2;
      const l = (<usize>max(x - radius, 0)) << 2;
      sum = f32x4.add(sum, gather(p0 + e, p1 + e, p2 + e, p3 + e));
      scatter(f32x4.mul(sum, k), q0 + o, q1 + o, q2 + o, q3 + o);
      sum = f32x4.sub(sum, gather(p0 + l, p1 + l, p2 + l, p3 + l));
    }
  }
}

function boxColumns(from: usize, to: usize, sums: usize, w: i32, h: i32, radius: i32): void {
  const side = 2 * radius + 1;
  const k = f32x4.splat(f32(1) / <f32>side);
  const stride: usize = (<usize>w) << 2;
  const times = f32x4.splat(<f32>radius);
  for (let x: usize = 0; x < stride; x += 16) v128.store(sums + x, f32x4.mul(v128.load(from + x), times));
  for (let y = 0; y < radius; y++) {
    const row = from + <usize>min(y, h - 1) * stride;
    for (let x: usize = 0; x < stride; x += 16) v128.store(sums + x, f32x4.add(v128.load(sums + x), v128.load(row + x)));
  }
  for (let y = 0; y < h; y++) {
    const enter = from + <usize>min(y + radius, h - 1) * stride;
    const leave = from + <usize>max(y - radius, 0) * stride;
    const out = to + <usize>y * stride;
    let x: usize = 0;
    for (; x + 16 <= stride; x += 16) {
      const sum = f32x4.add(v128.load(sums + x), v128.load(enter + x));
      v128.store(out + x, f32x4.mul(sum, k));
      v128.store(sums + x, f32x4.sub(sum, v128.load(leave + x)));
    }
    for (; x < stride; x += 4) {
      const sum = load<f32>(sums + x) + load<f32>(enter + x);
      store<f32>(out + x, sum * f32x4.extract_lane(k, 0));
      store<f32>(sums + x, sum - load<f32>(leave + x));
    }
  }
}

/** Repeated running boxes over plane `a`, in place; `b` is room for a plane and `sums` for a row. */
export function boxBlur(a: usize, b: usize, sums: usize, w: i32, h: i32, radius: i32, passes: i32): void {
  for (let p = 0; p < passes; p++) {
    boxRows(a, b, w, h, radius);
    boxColumns(b, a, sums, w, h, radius);
  }
}

/**
 * Symmetric taps along rows and columns of plane `a`, in place: `taps` holds the middle weight and `reach` more outwards; the border repeats. `b` is room for
 * a plane.
 */
export function tapBlur(a: usize, b: usize, w: i32, h: i32, taps: usize, reach: i32): void {
  const middle = v128.load32_splat(taps);
  const stride: usize = (<usize>w) << 2;
  for (let y = 0; y < h; y++) {
    const from = a + <usize>y * stride;
    const to = b + <usize>y * stride;
    let x = 0;
    while (x < w) {
      const o = (<usize>x) << 2;
      if (x >= reach && x + reach + 4 <= w) {
        const p = from + o;
        let sum = f32x4.mul(v128.load(p), middle);
        for (let k = 1; k <= reach; k++) {
          const d = (<usize>k) << 2;
          sum = f32x4.add(sum, f32x4.mul(f32x4.add(v128.load(p - d), v128.load(p + d)), v128.load32_splat(taps + d)));
        }
        v128.store(to + o, sum);
        x += 4;
        continue;
      }
      let sum = load<f32>(from + o) * load<f32>(taps);
      for (let k = 1; k <= reach; k++)
        sum +=
          (load<f32>(from + ((<usize>max(x - k, 0)) << 2)) + load<f32>(from + ((<usize>min(x + k, w - 1)) << 2))) *
          load<f32>(taps + ((<usize>k) << 2));
      store<f32>(to + o, sum);
      x++;
    }
  }
  for (let y = 0; y < h; y++) {
    const p = b + <usize>y * stride;
    const to = a + <usize>y * stride;
    for (let x: usize = 0; x < stride; x += 16) {
      let sum = f32x4.mul(v128.load(p + x), middle);
      for (let k = 1; k <= reach; k++) {
        const u = b + <usize>max(y - k, 0) * stride + x;
        const d = b + <usize>min(y + k, h - 1) * stride + x;
        sum = f32x4.add(sum, f32x4.mul(f32x4.add(v128.load(u), v128.load(d)), v128.load32_splat(taps + ((<usize>k) << 2))));
      }
      // What runs past a row's end is the next row's beginning, which is written after.
      v128.store(to + x, sum);
    }
  }
}
