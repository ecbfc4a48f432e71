// The inner loops of the core in WebAssembly SIMD, written in AssemblyScript. Four frames go through a transform at once,
// one a lane: no shuffles, and every stage is as wide as the machine. `npm run kernel` compiles this to
// src/core/signal/kernel-bytes.ts. Memory is laid out by src/core/signal/kernel.ts, which passes every address in.

// @ts-ignore: decorator
@inline function at(base: usize, i: i32): v128 { return v128.load(base + (<usize>i << 4)); }
// @ts-ignore: decorator
@inline function put(base: usize, i: i32, v: v128): void { v128.store(base + (<usize>i << 4), v); }
// @ts-ignore: decorator
@inline function add(a: v128, b: v128): v128 { return f32x4.add(a, b); }
// @ts-ignore: decorator
@inline function sub(a: v128, b: v128): v128 { return f32x4.sub(a, b); }
// @ts-ignore: decorator
@inline function mul(a: v128, b: v128): v128 { return f32x4.mul(a, b); }
// @ts-ignore: decorator
@inline function splat(address: usize): v128 { return v128.load32_splat(address); }

/**
 * Four packed points (a pair of samples each, `i` bytes into the windows) under their tapers: real parts of the four lanes.
 */
// @ts-ignore: decorator
@inline function pairs(i: usize, xa: usize, xb: usize, ta: usize, tb: usize): v128 {
  const x = v128.load64_lane(xb + i, v128.load64_zero(xa + i), 1);
  const t = v128.load64_lane(tb + i, v128.load64_zero(ta + i), 1);
  return mul(x, t);
}
// @ts-ignore: decorator
@inline function reals(low: v128, high: v128): v128 { return v128.shuffle<f32>(low, high, 0, 2, 4, 6); }
// @ts-ignore: decorator
@inline function imags(low: v128, high: v128): v128 { return v128.shuffle<f32>(low, high, 1, 3, 5, 7); }

/**
 * Power spectra of four tapered windows. `m` is half the transform's length (a power of two from 16 up); `x` are the
 * addresses of the first samples, `t` of the tapers (2 m values each), of which only the first `quarters` quarters aren't
 * zero; writes m + 1 rows to `power`.
 */
export function powerSpectra(m: i32, quarters: i32, x0: usize, x1: usize, x2: usize, x3: usize, t0: usize, t1: usize, t2: usize, t3: usize, re: usize, im: usize, reversed: usize, twiddles: usize, turns: usize, power: usize): void {
  const quarter = <usize>m << 1;
  const zero = f32x4.splat(0);
  // The first radix-4 stage as the samples are fetched: four points in bit-reversed order lie half, a quarter and three
  // quarters of the window after the first.
  for (let i = 0; i < m; i += 4) {
    const from = <usize>load<u16>(reversed + (<usize>i << 1)) << 3;
    let low = pairs(from, x0, x1, t0, t1);
    let high = pairs(from, x2, x3, t2, t3);
    const r0 = reals(low, high);
    const i0 = imags(low, high);
    low = pairs(from + quarter, x0, x1, t0, t1);
    high = pairs(from + quarter, x2, x3, t2, t3);
    const r2 = reals(low, high);
    const i2 = imags(low, high);
    let r1 = zero, i1 = zero, r3 = zero, i3 = zero;
    if (quarters > 2) {
      low = pairs(from + 2 * quarter, x0, x1, t0, t1);
      high = pairs(from + 2 * quarter, x2, x3, t2, t3);
      r1 = reals(low, high);
      i1 = imags(low, high);
    }
    if (quarters > 3) {
      low = pairs(from + 3 * quarter, x0, x1, t0, t1);
      high = pairs(from + 3 * quarter, x2, x3, t2, t3);
      r3 = reals(low, high);
      i3 = imags(low, high);
    }
    firstStage(i, re, im, r0, i0, r1, i1, r2, i2, r3, i3);
  }
  stages(m, re, im, twiddles);
  const first = add(at(re, 0), at(im, 0));
  const last = sub(at(re, 0), at(im, 0));
  put(power, 0, mul(first, first));
  put(power, m, mul(last, last));
  const half = f32x4.splat(0.5);
  // E + W O and its mirror E - W O, untangled from the packed transform.
  for (let k = 1; k <= m >> 1; k++) {
    const j = m - k;
    const er = mul(half, add(at(re, k), at(re, j)));
    const ei = mul(half, sub(at(im, k), at(im, j)));
    const or = mul(half, add(at(im, k), at(im, j)));
    const oi = mul(half, sub(at(re, j), at(re, k)));
    const c = splat(turns + (<usize>k << 3));
    const s = splat(turns + (<usize>k << 3) + 4);
    const wr = add(mul(c, or), mul(s, oi));
    const wi = sub(mul(c, oi), mul(s, or));
    const ar = add(er, wr);
    const ai = add(ei, wi);
    const br = sub(er, wr);
    const bi = sub(ei, wi);
    put(power, k, add(mul(ar, ar), mul(ai, ai)));
    put(power, j, add(mul(br, br), mul(bi, bi)));
  }
}

/**
 * Take what a room still holds of earlier sound out of `rows` rows (a multiple of four) of power spectra whose first `lanes`
 * lanes are moments in order: `held` and `fed` (a value a row) are what was held and what fed it at the last moment. Of a power
 * p the larger of p - over * held and least * p is left. For each lane the sums of all power and of what was held go to
 * `sums`, in four parts each.
 */
export function forget(rows: i32, lanes: i32, power: usize, held: usize, fed: usize, keep: f32, feed: f32, over: f32, least: f32, sums: usize): void {
  const keeps = f32x4.splat(keep);
  const feeds = f32x4.splat(feed);
  const overs = f32x4.splat(over);
  const leasts = f32x4.splat(least);
  const zero = f32x4.splat(0);
  for (let i = 0; i < 8; i++) put(sums, i, zero);
  for (let b = 0; b < rows; b += 4) {
    // Four rows of four lanes, turned over: one vector a moment.
    const base = power + (<usize>b << 4);
    const r0 = at(base, 0);
    const r1 = at(base, 1);
    const r2 = at(base, 2);
    const r3 = at(base, 3);
    const a01 = v128.shuffle<f32>(r0, r1, 0, 4, 1, 5);
    const a23 = v128.shuffle<f32>(r2, r3, 0, 4, 1, 5);
    const b01 = v128.shuffle<f32>(r0, r1, 2, 6, 3, 7);
    const b23 = v128.shuffle<f32>(r2, r3, 2, 6, 3, 7);
    let p0 = v128.shuffle<f32>(a01, a23, 0, 1, 4, 5);
    let p1 = v128.shuffle<f32>(a01, a23, 2, 3, 6, 7);
    let p2 = v128.shuffle<f32>(b01, b23, 0, 1, 4, 5);
    let p3 = v128.shuffle<f32>(b01, b23, 2, 3, 6, 7);
    let h = v128.load(held + (<usize>b << 2));
    let f = v128.load(fed + (<usize>b << 2));
    h = add(mul(keeps, h), mul(feeds, f));
    f = f32x4.max(sub(p0, h), zero);
    count(sums, 0, p0, h);
    p0 = f32x4.max(sub(p0, mul(overs, h)), mul(leasts, p0));
    if (lanes > 1) {
      h = add(mul(keeps, h), mul(feeds, f));
      f = f32x4.max(sub(p1, h), zero);
      count(sums, 1, p1, h);
      p1 = f32x4.max(sub(p1, mul(overs, h)), mul(leasts, p1));
    }
    if (lanes > 2) {
      h = add(mul(keeps, h), mul(feeds, f));
      f = f32x4.max(sub(p2, h), zero);
      count(sums, 2, p2, h);
      p2 = f32x4.max(sub(p2, mul(overs, h)), mul(leasts, p2));
    }
    if (lanes > 3) {
      h = add(mul(keeps, h), mul(feeds, f));
      f = f32x4.max(sub(p3, h), zero);
      count(sums, 3, p3, h);
      p3 = f32x4.max(sub(p3, mul(overs, h)), mul(leasts, p3));
    }
    v128.store(held + (<usize>b << 2), h);
    v128.store(fed + (<usize>b << 2), f);
    const c01 = v128.shuffle<f32>(p0, p1, 0, 4, 1, 5);
    const c23 = v128.shuffle<f32>(p2, p3, 0, 4, 1, 5);
    const d01 = v128.shuffle<f32>(p0, p1, 2, 6, 3, 7);
    const d23 = v128.shuffle<f32>(p2, p3, 2, 6, 3, 7);
    put(base, 0, v128.shuffle<f32>(c01, c23, 0, 1, 4, 5));
    put(base, 1, v128.shuffle<f32>(c01, c23, 2, 3, 6, 7));
    put(base, 2, v128.shuffle<f32>(d01, d23, 0, 1, 4, 5));
    put(base, 3, v128.shuffle<f32>(d01, d23, 2, 3, 6, 7));
  }
}

/** Add a moment's power and what was held of it to its sums. */
// @ts-ignore: decorator
@inline function count(sums: usize, lane: i32, power: v128, held: v128): void {
  put(sums, 2 * lane, add(at(sums, 2 * lane), power));
  put(sums, 2 * lane + 1, add(at(sums, 2 * lane + 1), held));
}

/** Fourth roots of `count` rows. */
export function fourthRoots(count: i32, power: usize, out: usize): void {
  for (let i = 0; i < count; i++) put(out, i, f32x4.sqrt(f32x4.sqrt(at(power, i))));
}

/**
 * Autocorrelations of four frames from their power spectra (m + 1 rows) weighed by `weights`, for lags 0 to `lags` (at most
 * m / 2), relative to lag 0 and multiplied by `correction` (one value a lag); lag 0 itself stays as it is. A power spectrum
 * is even, so this is a cosine transform of m + 1 points: even lags from a real transform of half the length, odd ones by
 * running sums (Press et al., Numerical Recipes, "cosine transform"). `reversed` and `twiddles` are those of m / 2 points,
 * `turns` (cos, sin of pi k / m) has m rows.
 */
export function autocorrelations(m: i32, lags: i32, power: usize, weights: usize, correction: usize, re: usize, im: usize, reversed: usize, twiddles: usize, turns: usize, out: usize): void {
  const half = f32x4.splat(0.5);
  const points = m >> 1;
  const f0 = mul(at(power, 0), splat(weights));
  const fm = mul(at(power, m), splat(weights + (<usize>m << 2)));
  let odd = mul(half, sub(f0, fm));
  // y_j and y_(m-j), of which point n takes y_2n and y_(2n+1): folded pairs, the odd lags' share turned by sin.
  placePoint(0, mul(half, add(f0, fm)), re, im, reversed);
  for (let j = 1; j < points; j++) {
    const a = mul(at(power, j), splat(weights + (<usize>j << 2)));
    const b = mul(at(power, m - j), splat(weights + (<usize>(m - j) << 2)));
    const mean = mul(half, add(a, b));
    const gap = sub(a, b);
    const turned = mul(gap, splat(turns + (<usize>j << 3) + 4));
    odd = add(odd, mul(gap, splat(turns + (<usize>j << 3))));
    placePoint(j, sub(mean, turned), re, im, reversed);
    placePoint(m - j, add(mean, turned), re, im, reversed);
  }
  placePoint(points, mul(at(power, points), splat(weights + (<usize>points << 2))), re, im, reversed);
  transform(points, re, im, twiddles);
  const zero = add(at(re, 0), at(im, 0));
  put(out, 0, f32x4.div(zero, f32x4.splat(<f32>m)));
  // A silent frame correlates with nothing.
  const scale = v128.and(f32x4.div(f32x4.splat(1), zero), f32x4.gt(zero, f32x4.splat(1e-20)));
  put(out, 1, mul(mul(odd, scale), splat(correction + 4)));
  for (let k = 1; 2 * k <= lags; k++) {
    const j = points - k;
    const er = mul(half, add(at(re, k), at(re, j)));
    const ei = mul(half, sub(at(im, k), at(im, j)));
    const or = mul(half, add(at(im, k), at(im, j)));
    const oi = mul(half, sub(at(re, j), at(re, k)));
    const c = splat(turns + (<usize>k << 4));
    const s = splat(turns + (<usize>k << 4) + 4);
    const even = add(er, add(mul(c, or), mul(s, oi)));
    odd = sub(odd, add(ei, sub(mul(c, oi), mul(s, or))));
    put(out, 2 * k, mul(mul(even, scale), splat(correction + (<usize>k << 3))));
    if (2 * k < lags) put(out, 2 * k + 1, mul(mul(odd, scale), splat(correction + (<usize>k << 3) + 4)));
  }
}

/** Value `i` of a real signal goes to its point, real part if even, in bit-reversed order. */
// @ts-ignore: decorator
@inline function placePoint(i: i32, value: v128, re: usize, im: usize, reversed: usize): void {
  put(i & 1 ? im : re, <i32>load<u16>(reversed + (<usize>(i >> 1) << 1)), value);
}

// @ts-ignore: decorator
@inline function firstStage(i: i32, re: usize, im: usize, r0: v128, i0: v128, r1: v128, i1: v128, r2: v128, i2: v128, r3: v128, i3: v128): void {
  const ar = add(r0, r1);
  const ai = add(i0, i1);
  const br = sub(r0, r1);
  const bi = sub(i0, i1);
  const cr = add(r2, r3);
  const ci = add(i2, i3);
  const dr = sub(r2, r3);
  const di = sub(i2, i3);
  put(re, i, add(ar, cr));
  put(im, i, add(ai, ci));
  put(re, i + 1, add(br, di));
  put(im, i + 1, sub(bi, dr));
  put(re, i + 2, sub(ar, cr));
  put(im, i + 2, sub(ai, ci));
  put(re, i + 3, sub(br, di));
  put(im, i + 3, add(bi, dr));
}

/** Complex transform of four signals of `m` points in bit-reversed order: radix-4 stages, one radix-2 stage where m asks for it. */
function transform(m: i32, re: usize, im: usize, twiddles: usize): void {
  for (let i = 0; i < m; i += 4)
    firstStage(i, re, im, at(re, i), at(im, i), at(re, i + 1), at(im, i + 1), at(re, i + 2), at(im, i + 2), at(re, i + 3), at(im, i + 3));
  stages(m, re, im, twiddles);
}

/** The stages of a transform after the first. */
function stages(m: i32, re: usize, im: usize, twiddles: usize): void {
  let q = 4;
  let table = twiddles;
  for (; 4 * q <= m; q *= 4) {
    for (let k = 0; k < q; k++) {
      const w1r = splat(table);
      const w1i = splat(table + 4);
      const w2r = splat(table + 8);
      const w2i = splat(table + 12);
      const w3r = splat(table + 16);
      const w3i = splat(table + 20);
      table += 24;
      for (let a = k; a < m; a += 4 * q) {
        const b = a + q;
        const c = b + q;
        const d = c + q;
        const br0 = at(re, b);
        const bi0 = at(im, b);
        const cr0 = at(re, c);
        const ci0 = at(im, c);
        const dr0 = at(re, d);
        const di0 = at(im, d);
        const ur = sub(mul(br0, w2r), mul(bi0, w2i));
        const ui = add(mul(br0, w2i), mul(bi0, w2r));
        const vr = sub(mul(cr0, w1r), mul(ci0, w1i));
        const vi = add(mul(cr0, w1i), mul(ci0, w1r));
        const xr = sub(mul(dr0, w3r), mul(di0, w3i));
        const xi = add(mul(dr0, w3i), mul(di0, w3r));
        const ar = add(at(re, a), ur);
        const ai = add(at(im, a), ui);
        const sr = sub(at(re, a), ur);
        const si = sub(at(im, a), ui);
        const er = add(vr, xr);
        const ei = add(vi, xi);
        const fr = sub(vr, xr);
        const fi = sub(vi, xi);
        put(re, a, add(ar, er));
        put(im, a, add(ai, ei));
        put(re, b, add(sr, fi));
        put(im, b, sub(si, fr));
        put(re, c, sub(ar, er));
        put(im, c, sub(ai, ei));
        put(re, d, sub(sr, fi));
        put(im, d, add(si, fr));
      }
    }
  }
  if (q == m) return;
  for (let k = 0; k < q; k++) {
    const wr = splat(table);
    const wi = splat(table + 4);
    table += 8;
    const j = k + q;
    const jr = at(re, j);
    const ji = at(im, j);
    const tr = sub(mul(jr, wr), mul(ji, wi));
    const ti = add(mul(jr, wi), mul(ji, wr));
    const kr = at(re, k);
    const ki = at(im, k);
    put(re, j, sub(kr, tr));
    put(im, j, sub(ki, ti));
    put(re, k, add(kr, tr));
    put(im, k, add(ki, ti));
  }
}

/**
 * `count` outputs of a polyphase filter: output n stands at input position (first + n) * step, less `origin`; its row of
 * the table is the nearest of `phases`. `taps` is a multiple of eight; the first tap lies `before` samples back.
 */
export function convert(count: i32, first: f64, step: f64, origin: f64, before: i32, input: usize, table: usize, taps: i32, phases: i32, out: usize): void {
  for (let n = 0; n < count; n++) {
    const position = (first + <f64>n) * step;
    const base = Math.floor(position);
    const row = table + <usize>(<i32>Math.round((position - base) * <f64>phases) * taps) * 4;
    const from = input + <usize>(<i32>(base - origin) - before) * 4;
    let a = f32x4.splat(0);
    let b = f32x4.splat(0);
    for (let i: usize = 0; i < <usize>taps * 4; i += 32) {
      a = add(a, mul(v128.load(from + i), v128.load(row + i)));
      b = add(b, mul(v128.load(from + i + 16), v128.load(row + i + 16)));
    }
    a = add(a, b);
    store<f32>(out + (<usize>n << 2), f32x4.extract_lane(a, 0) + f32x4.extract_lane(a, 1) + f32x4.extract_lane(a, 2) + f32x4.extract_lane(a, 3));
  }
}
