/** Slopes of a plane by the Scharr-weighted 3 × 3 difference and their length; at the border the last pixel repeats. `w` is at least 1. */
export function slopes(L: usize, w: i32, h: i32, sx: usize, sy: usize, size: usize): void {
  const stride: usize = (<usize>w) << 2;
  const eighth = f32x4.splat(0.125);
  for (let y = 0; y < h; y++) {
    const m = L + <usize>y * stride;
    const u = y > 0 ? m - stride : m;
    const d = y < h - 1 ? m + stride : m;
    const o = <usize>y * stride;
    let x = 0;
    while (x < w) {
      const i = (<usize>x) << 2;
      if (x >= 1 && x + 5 <= w) {
        const a = v128.load(u + i - 4);
        const c = v128.load(u + i + 4);
        const g = v128.load(d + i - 4);
        const k = v128.load(d + i + 4);
        const across = f32x4.sub(v128.load(m + i + 4), v128.load(m + i - 4));
        const down = f32x4.sub(v128.load(d + i), v128.load(u + i));
        const gx = f32x4.mul(
          f32x4.add(f32x4.sub(f32x4.add(c, k), f32x4.add(a, g)), f32x4.add(across, across)),
          eighth,
        );
        const gy = f32x4.mul(f32x4.add(f32x4.sub(f32x4.add(g, k), f32x4.add(a, c)), f32x4.add(down, down)), eighth);
        v128.store(sx + o + i, gx);
        v128.store(sy + o + i, gy);
        v128.store(size + o + i, f32x4.sqrt(f32x4.add(f32x4.mul(gx, gx), f32x4.mul(gy, gy))));
        x += 4;
        continue;
      }
      const l: usize = x > 0 ? i - 4 : i;
      const r: usize = x < w - 1 ? i + 4 : i;
      const a = load<f32>(u + l);
      const c = load<f32>(u + r);
      const g = load<f32>(d + l);
      const k = load<f32>(d + r);
      const gx: f32 = (c + k - (a + g) + 2 * (load<f32>(m + r) - load<f32>(m + l))) * 0.125;
      const gy: f32 = (g + k - (a + c) + 2 * (load<f32>(d + i) - load<f32>(u + i))) * 0.125;
      store<f32>(sx + o + i, gx);
      store<f32>(sy + o + i, gy);
      store<f32>(size + o + i, sqrt<f32>(gx * gx + gy * gy));
      x++;
    }
  }
}

@inline
function pairSums(p: usize, q: usize, r: usize, s: usize, stride: usize): v128 {
  const a = f32x4.add(f32x4.mul(v128.load(p), v128.load(q)), f32x4.mul(v128.load(p + stride), v128.load(q + stride)));
  const b = f32x4.add(f32x4.mul(v128.load(r), v128.load(s)), f32x4.mul(v128.load(r + stride), v128.load(s + stride)));
  return f32x4.add(v128.shuffle<f32>(a, b, 0, 2, 4, 6), v128.shuffle<f32>(a, b, 1, 3, 5, 7));
}

/** Products of slopes summed over 2 × 2 blocks: the structure tensor at half size. Both sides must be at least 2. */
export function tensor(X: usize, Y: usize, w: i32, h: i32, e: usize, f: usize, g: usize): void {
  const width = w >> 1;
  const height = h >> 1;
  const stride: usize = (<usize>w) << 2;
  for (let y = 0; y < height; y++) {
    let p: usize = <usize>(2 * y) * stride;
    let o: usize = <usize>(y * width) << 2;
    let x = 0;
    for (; x + 4 <= width; x += 4) {
      v128.store(e + o, pairSums(X + p, X + p, X + p + 16, X + p + 16, stride));
      v128.store(f + o, pairSums(X + p, Y + p, X + p + 16, Y + p + 16, stride));
      v128.store(g + o, pairSums(Y + p, Y + p, Y + p + 16, Y + p + 16, stride));
      p += 32;
      o += 16;
    }
    for (; x < width; x++) {
      let ee: f32 = 0;
      let ff: f32 = 0;
      let gg: f32 = 0;
      for (let k = 0; k < 4; k++) {
        const q = p + ((<usize>(k & 1)) << 2) + (k > 1 ? stride : 0);
        const vx = load<f32>(X + q);
        const vy = load<f32>(Y + q);
        ee += vx * vx;
        ff += vx * vy;
        gg += vy * vy;
      }
      store<f32>(e + o, ee);
      store<f32>(f + o, ff);
      store<f32>(g + o, gg);
      p += 8;
      o += 4;
    }
  }
}

/** Turns planes of doubled-angle cosine and sine (of any length) into unit tangents, in place. */
export function halveAngles(c: usize, s: usize, n: i32): void {
  const one = f32x4.splat(1);
  const half = f32x4.splat(0.5);
  const zero = f32x4.splat(0);
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
    const C = v128.load(c + i);
    const S = v128.load(s + i);
    const m = f32x4.sqrt(f32x4.add(f32x4.mul(C, C), f32x4.mul(S, S)));
    const k = v128.bitselect(f32x4.div(C, m), one, f32x4.gt(m, f32x4.splat(1e-12)));
    v128.store(c + i, f32x4.sqrt(f32x4.max(zero, f32x4.mul(f32x4.add(one, k), half))));
    const y = f32x4.sqrt(f32x4.max(zero, f32x4.mul(f32x4.sub(one, k), half)));
    v128.store(s + i, v128.bitselect(f32x4.neg(y), y, f32x4.lt(S, zero)));
  }
}

/** Doubled-angle cosine and sine of unit tangents. */
export function doubleAngles(tx: usize, ty: usize, n: i32, c: usize, s: usize): void {
  for (let i: usize = 0, end: usize = (<usize>n) << 2; i < end; i += 16) {
    const x = v128.load(tx + i);
    const y = v128.load(ty + i);
    v128.store(c + i, f32x4.sub(f32x4.mul(x, x), f32x4.mul(y, y)));
    const p = f32x4.mul(x, y);
    v128.store(s + i, f32x4.add(p, p));
  }
}

/** Unit minor eigenvector and coherence of each tensor, in place: e, f, g become tx, ty and coherence. */
export function eigen(e: usize, f: usize, g: usize, n: i32): void {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  for (let i = 0; i < n; i += 4) {
    const o = (<usize>i) << 2;
    const E = v128.load(e + o);
    const F = v128.load(f + o);
    const G = v128.load(g + o);
    const d = f32x4.sub(E, G);
    const spread = f32x4.sqrt(f32x4.add(f32x4.mul(d, d), f32x4.mul(f32x4.splat(4), f32x4.mul(F, F))));
    const sum = f32x4.add(E, G);
    // The major eigenvalue less G, written so that nothing cancels when E is far below G.
    const rise = v128.bitselect(
      f32x4.div(f32x4.mul(f32x4.splat(2), f32x4.mul(F, F)), f32x4.max(f32x4.sub(spread, d), f32x4.splat(1e-30))),
      f32x4.mul(f32x4.splat(0.5), f32x4.add(d, spread)),
      f32x4.lt(d, zero),
    );
    let vx = F;
    let vy = f32x4.neg(rise);
    let m = f32x4.add(f32x4.mul(vx, vx), f32x4.mul(vy, vy));
    const still = f32x4.lt(m, f32x4.splat(1e-18));
    const tall = f32x4.ge(E, G);
    vx = v128.bitselect(v128.bitselect(zero, one, tall), vx, still);
    vy = v128.bitselect(v128.bitselect(one, zero, tall), vy, still);
    m = v128.bitselect(one, m, still);
    const k = f32x4.div(one, f32x4.sqrt(m));
    v128.store(e + o, f32x4.mul(vx, k));
    v128.store(f + o, f32x4.mul(vy, k));
    v128.store(g + o, v128.and(f32x4.div(spread, sum), f32x4.gt(sum, f32x4.splat(4e-7))));
  }
}
