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

// @ts-ignore: decorator
@inline function tapered(i: usize, x0: usize, x1: usize, x2: usize, x3: usize, t0: usize, t1: usize, t2: usize, t3: usize): v128 {
  let x = v128.load32_zero(x0 + i);
  x = v128.load_lane<u32>(x1 + i, x, 1);
  x = v128.load_lane<u32>(x2 + i, x, 2);
  x = v128.load_lane<u32>(x3 + i, x, 3);
  let t = v128.load32_zero(t0 + i);
  t = v128.load_lane<u32>(t1 + i, t, 1);
  t = v128.load_lane<u32>(t2 + i, t, 2);
  t = v128.load_lane<u32>(t3 + i, t, 3);
  return mul(x, t);
}

/**
 * Power spectra of four tapered windows. `m` is half the transform's length (a power of two from 16 up); `x` are the
 * addresses of the first samples, `t` of the tapers (2 m values each, zero beyond the window); writes m + 1 rows to `power`.
 */
export function powerSpectra(m: i32, x0: usize, x1: usize, x2: usize, x3: usize, t0: usize, t1: usize, t2: usize, t3: usize, re: usize, im: usize, reversed: usize, twiddles: usize, turns: usize, power: usize): void {
  for (let i = 0; i < m; i++) {
    const from = <usize>load<u16>(reversed + (<usize>i << 1)) << 3;
    put(re, i, tapered(from, x0, x1, x2, x3, t0, t1, t2, t3));
    put(im, i, tapered(from + 4, x0, x1, x2, x3, t0, t1, t2, t3));
  }
  transform(m, re, im, twiddles);
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

/** Fourth roots of `count` rows. */
export function fourthRoots(count: i32, power: usize, out: usize): void {
  for (let i = 0; i < count; i++) put(out, i, f32x4.sqrt(f32x4.sqrt(at(power, i))));
}

/**
 * Autocorrelations of four frames from their power spectra (m + 1 rows) weighed by `weights`, for lags 0 to `lags`,
 * relative to lag 0 and multiplied by `correction` (one value a lag); lag 0 itself stays as it is.
 */
export function autocorrelations(m: i32, lags: i32, power: usize, weights: usize, correction: usize, re: usize, im: usize, reversed: usize, twiddles: usize, turns: usize, out: usize): void {
  const half = f32x4.splat(0.5);
  for (let k = 0; k <= m >> 1; k++) {
    const j = m - k;
    const a = mul(at(power, k), splat(weights + (<usize>k << 2)));
    const b = mul(at(power, j), splat(weights + (<usize>j << 2)));
    const er = mul(half, add(a, b));
    const dr = mul(half, sub(a, b));
    const or = mul(dr, splat(turns + (<usize>k << 3)));
    const oi = mul(dr, splat(turns + (<usize>k << 3) + 4));
    const atK = <i32>load<u16>(reversed + (<usize>k << 1));
    put(re, atK, sub(er, oi));
    put(im, atK, f32x4.neg(or));
    if (k > 0) {
      const atJ = <i32>load<u16>(reversed + (<usize>j << 1));
      put(re, atJ, add(er, oi));
      put(im, atJ, f32x4.neg(or));
    }
  }
  transform(m, re, im, twiddles);
  const zero = at(re, 0);
  put(out, 0, f32x4.div(zero, f32x4.splat(<f32>m)));
  // A silent frame correlates with nothing.
  const scale = v128.and(f32x4.div(f32x4.splat(1), zero), f32x4.gt(zero, f32x4.splat(1e-20)));
  for (let lag = 1; lag <= lags; lag++) {
    const value = lag & 1 ? f32x4.neg(at(im, lag >> 1)) : at(re, lag >> 1);
    put(out, lag, mul(mul(value, scale), splat(correction + (<usize>lag << 2))));
  }
}

/** Complex transform of four signals of `m` points in bit-reversed order: radix-4 stages, one radix-2 stage where m asks for it. */
function transform(m: i32, re: usize, im: usize, twiddles: usize): void {
  for (let i = 0; i < m; i += 4) {
    const r0 = at(re, i);
    const r1 = at(re, i + 1);
    const r2 = at(re, i + 2);
    const r3 = at(re, i + 3);
    const i0 = at(im, i);
    const i1 = at(im, i + 1);
    const i2 = at(im, i + 2);
    const i3 = at(im, i + 3);
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
