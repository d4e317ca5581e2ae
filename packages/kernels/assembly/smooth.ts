/** A plane with `r` more pixels on every side, its border repeated. */
function pad(from: usize, w: i32, h: i32, r: i32, to: usize): void {
  const pw = w + 2 * r;
  for (let y = 0; y < h + 2 * r; y++) {
    const row = from + ((<usize>(min(max(y - r, 0), h - 1) * w)) << 2);
    const out = to + ((<usize>(y * pw)) << 2);
    const first = load<f32>(row);
    const last = load<f32>(row + ((<usize>(w - 1)) << 2));
    for (let x = 0; x < r; x++) {
      store<f32>(out + ((<usize>x) << 2), first);
      store<f32>(out + ((<usize>(w + r + x)) << 2), last);
    }
    memory.copy(out + ((<usize>r) << 2), row, (<usize>w) << 2);
  }
}

/** Sums of `count` numbers, each `stride` bytes after the one before, at every place of `n`. Reads past the end are of no use to anyone. */
function runs(from: usize, to: usize, n: i32, count: i32, stride: usize): void {
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
    let sum = v128.load(from + i);
    let p = from + i;
    for (let k = 1; k < count; k++) {
      p += stride;
      sum = f32x4.add(sum, v128.load(p));
    }
    v128.store(to + i, sum);
  }
}

/**
 * Each pixel takes the mean of the calmest of eight windows around it, softly weighted. Planes L, A, B of `w` × `h`, in place; `r` is the windows'
 * reach and `e` the half-width of the upright ones, in pixels. `room` holds 18 padded planes of (w + 2r) × (h + 2r) and 2r + 8 rows more.
 */
export function smoothKeepingEdges(L: usize, A: usize, B: usize, w: i32, h: i32, r: i32, e: i32, room: usize): void {
  const pw = w + 2 * r;
  const ph = h + 2 * r;
  const stride: usize = (<usize>pw) << 2;
  // What runs past the last row is read, never used.
  const size: usize = ((<usize>(pw * ph)) << 2) + 32;
  const padded = room;
  const across = room + size;
  const broad = room + 2 * size;
  const means = room + 3 * size;
  const n = pw * ph;
  // Sums of L, its square, a and b over three window shapes: 4 × 3 planes.
  for (let q = 0; q < 4; q++) {
    pad(q < 2 ? L : q === 2 ? A : B, w, h, r, padded);
    if (q === 1)
      for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
        const v = v128.load(padded + i);
        v128.store(padded + i, f32x4.mul(v, v));
      }
    runs(padded, across, n - r, r + 1, 4);
    runs(padded, broad, n - 2 * e, 2 * e + 1, 4);
    const out = means + <usize>(q * 3) * size;
    runs(across, out, n - pw * r, r + 1, stride);
    runs(broad, out + size, n - pw * r, r + 1, stride);
    runs(across, out + 2 * size, n - pw * 2 * e, 2 * e + 1, stride);
  }
  const square = f32x4.splat(f32(1) / <f32>((r + 1) * (r + 1)));
  const oblong = f32x4.splat(f32(1) / <f32>((r + 1) * (2 * e + 1)));
  const zero = f32x4.splat(0);
  const R: usize = (<usize>r) << 2;
  const E: usize = (<usize>(r - e)) << 2;
  const down: usize = <usize>r * stride;
  const half: usize = <usize>(r - e) * stride;
  for (let y = 0; y < h; y++) {
    const row = means + <usize>y * stride;
    const o = (<usize>(y * w)) << 2;
    for (let x = 0; x < w;) {
      const i = (<usize>x) << 2;
      let weights = zero;
      let vL = zero;
      let va = zero;
      let vb = zero;
      for (let k = 0; k < 8; k++) {
        const shape: usize = k < 4 ? 0 : k < 6 ? size : 2 * size;
        const at: usize =
          k === 0
            ? 0
            : k === 1
              ? R
              : k === 2
                ? down
                : k === 3
                  ? R + down
                  : k === 4
                    ? E
                    : k === 5
                      ? E + down
                      : k === 6
                        ? half
                        : R + half;
        const p = row + i + shape + at;
        const area = k < 4 ? square : oblong;
        const mean = f32x4.mul(v128.load(p), area);
        const power = f32x4.mul(v128.load(p + 3 * size), area);
        const variance = f32x4.max(zero, f32x4.sub(power, f32x4.mul(mean, mean)));
        const u = f32x4.add(variance, f32x4.splat(4e-5));
        const uu = f32x4.mul(u, u);
        // Scaled so that the weight of a calm window is near 1.
        const weight = f32x4.div(f32x4.splat(2.56e-18), f32x4.mul(uu, uu));
        weights = f32x4.add(weights, weight);
        vL = f32x4.add(vL, f32x4.mul(weight, mean));
        va = f32x4.add(va, f32x4.mul(weight, f32x4.mul(v128.load(p + 6 * size), area)));
        vb = f32x4.add(vb, f32x4.mul(weight, f32x4.mul(v128.load(p + 9 * size), area)));
      }
      vL = f32x4.div(vL, weights);
      va = f32x4.div(va, weights);
      vb = f32x4.div(vb, weights);
      // The last pixels of a row are done again with the three before them, from the untouched sums.
      v128.store(L + o + i, vL);
      v128.store(A + o + i, va);
      v128.store(B + o + i, vb);
      if (x + 4 < w && x + 8 > w) x = w - 4;
      else x += 4;
    }
  }
}
