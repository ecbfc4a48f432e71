/** A reusable plan for real-input transforms of one length; it owns its buffers. */
export interface RealFft {
  readonly size: number;
  /** Spectrum of `input` (length >= size): fills `re` and `im` (length size/2 + 1). */
  forward(input: Float64Array, re: Float64Array, im: Float64Array): void;
  /** Inverse of a Hermitian spectrum given by its first size/2 + 1 values. */
  inverse(re: Float64Array, im: Float64Array, out: Float64Array): void;
}

const plans = new Map<number, RealFft>();

/** The shared plan for a power-of-two `size` (8 to 65536). Not re-entrant: one call at a time, as JavaScript is. */
export function realFft(size: number): RealFft {
  let plan = plans.get(size);
  if (!plan) plans.set(size, (plan = createRealFft(size)));
  return plan;
}

function createRealFft(size: number): RealFft {
  if (size < 8 || (size & (size - 1)) !== 0) throw new RangeError(`FFT size ${size} must be a power of two from 8 up.`);
  const half = size >> 1;
  const zr = new Float64Array(half);
  const zi = new Float64Array(half);
  const transform = createComplexFft(half);
  const cos = new Float64Array(half + 1);
  const sin = new Float64Array(half + 1);
  for (let k = 0; k <= half; k++) {
    cos[k] = Math.cos((2 * Math.PI * k) / size);
    sin[k] = Math.sin((2 * Math.PI * k) / size);
  }

  // A real signal of N points is transformed as N/2 complex points, then untangled (textbook packing).
  function forward(input: Float64Array, re: Float64Array, im: Float64Array) {
    for (let i = 0; i < half; i++) {
      zr[i] = input[2 * i];
      zi[i] = input[2 * i + 1];
    }
    transform(zr, zi);
    re[0] = zr[0] + zi[0];
    im[0] = 0;
    re[half] = zr[0] - zi[0];
    im[half] = 0;
    for (let k = 1; k < half; k++) {
      const j = half - k;
      const er = 0.5 * (zr[k] + zr[j]);
      const ei = 0.5 * (zi[k] - zi[j]);
      const or = 0.5 * (zi[k] + zi[j]);
      const oi = 0.5 * (zr[j] - zr[k]);
      re[k] = er + cos[k] * or + sin[k] * oi;
      im[k] = ei + cos[k] * oi - sin[k] * or;
    }
  }

  function inverse(re: Float64Array, im: Float64Array, out: Float64Array) {
    // Tangle back, then use conj(FFT(conj(z))) for the inverse.
    for (let k = 0; k < half; k++) {
      const j = half - k;
      const er = 0.5 * (re[k] + re[j]);
      const ei = 0.5 * (im[k] - im[j]);
      const dr = 0.5 * (re[k] - re[j]);
      const di = 0.5 * (im[k] + im[j]);
      const or = dr * cos[k] - di * sin[k];
      const oi = dr * sin[k] + di * cos[k];
      zr[k] = er - oi;
      zi[k] = -(ei + or);
    }
    transform(zr, zi);
    const scale = 1 / half;
    for (let i = 0; i < half; i++) {
      out[2 * i] = zr[i] * scale;
      out[2 * i + 1] = -zi[i] * scale;
    }
  }

  return { size, forward, inverse };
}

/** In-place decimation-in-time transform: radix-4 stages on bit-reversed input, one radix-2 stage where the size asks for it. */
function createComplexFft(n: number) {
  const bits = Math.log2(n);
  const swaps: number[] = [];
  for (let i = 0; i < n; i++) {
    let r = 0;
    for (let b = 0; b < bits; b++) r |= ((i >> b) & 1) << (bits - 1 - b);
    if (r > i) swaps.push(i, r);
  }
  const swapPairs = Uint32Array.from(swaps);
  // One contiguous run of twiddles (w, w^2, w^3) for each stage.
  const stages: { m: number; twiddles: Float64Array }[] = [];
  let m = 4;
  for (; 4 * m <= n; m *= 4) {
    const twiddles = new Float64Array(6 * m);
    for (let k = 0; k < m; k++)
      for (let p = 1; p <= 3; p++) {
        const angle = (-2 * Math.PI * k * p) / (4 * m);
        twiddles[6 * k + 2 * p - 2] = Math.cos(angle);
        twiddles[6 * k + 2 * p - 1] = Math.sin(angle);
      }
    stages.push({ m, twiddles });
  }
  const lastHalf = m < n ? m : 0;
  const lastTwiddles = new Float64Array(2 * lastHalf);
  for (let k = 0; k < lastHalf; k++) {
    lastTwiddles[2 * k] = Math.cos((Math.PI * k) / lastHalf);
    lastTwiddles[2 * k + 1] = -Math.sin((Math.PI * k) / lastHalf);
  }

  return function transform(re: Float64Array, im: Float64Array) {
    for (let s = 0; s < swapPairs.length; s += 2) {
      const i = swapPairs[s];
      const r = swapPairs[s + 1];
      const tr = re[i];
      re[i] = re[r];
      re[r] = tr;
      const ti = im[i];
      im[i] = im[r];
      im[r] = ti;
    }
    for (let i = 0; i < n; i += 4) {
      const ar = re[i] + re[i + 1];
      const ai = im[i] + im[i + 1];
      const br = re[i] - re[i + 1];
      const bi = im[i] - im[i + 1];
      const cr = re[i + 2] + re[i + 3];
      const ci = im[i + 2] + im[i + 3];
      const dr = re[i + 2] - re[i + 3];
      const di = im[i + 2] - im[i + 3];
      re[i] = ar + cr;
      im[i] = ai + ci;
      re[i + 1] = br + di;
      im[i + 1] = bi - dr;
      re[i + 2] = ar - cr;
      im[i + 2] = ai - ci;
      re[i + 3] = br - di;
      im[i + 3] = bi + dr;
    }
    for (let s = 0; s < stages.length; s++) quarterStage(re, im, n, stages[s].m, stages[s].twiddles);
    for (let k = 0; k < lastHalf; k++) {
      const j = k + lastHalf;
      const wr = lastTwiddles[2 * k];
      const wi = lastTwiddles[2 * k + 1];
      const tr = re[j] * wr - im[j] * wi;
      const ti = re[j] * wi + im[j] * wr;
      re[j] = re[k] - tr;
      im[j] = im[k] - ti;
      re[k] += tr;
      im[k] += ti;
    }
  };
}

function quarterStage(re: Float64Array, im: Float64Array, n: number, m: number, twiddles: Float64Array) {
  for (let start = 0; start < n; start += 4 * m) {
    for (let k = 0, t = 0; k < m; k++, t += 6) {
      const i0 = start + k;
      const i1 = i0 + m;
      const i2 = i1 + m;
      const i3 = i2 + m;
      const w1r = twiddles[t];
      const w1i = twiddles[t + 1];
      const w2r = twiddles[t + 2];
      const w2i = twiddles[t + 3];
      const w3r = twiddles[t + 4];
      const w3i = twiddles[t + 5];
      const ur = re[i1] * w2r - im[i1] * w2i;
      const ui = re[i1] * w2i + im[i1] * w2r;
      const vr = re[i2] * w1r - im[i2] * w1i;
      const vi = re[i2] * w1i + im[i2] * w1r;
      const xr = re[i3] * w3r - im[i3] * w3i;
      const xi = re[i3] * w3i + im[i3] * w3r;
      const ar = re[i0] + ur;
      const ai = im[i0] + ui;
      const br = re[i0] - ur;
      const bi = im[i0] - ui;
      const cr = vr + xr;
      const ci = vi + xi;
      const dr = vr - xr;
      const di = vi - xi;
      re[i0] = ar + cr;
      im[i0] = ai + ci;
      re[i1] = br + di;
      im[i1] = bi - dr;
      re[i2] = ar - cr;
      im[i2] = ai - ci;
      re[i3] = br - di;
      im[i3] = bi + dr;
    }
  }
}

/** A Hann window, symmetric about its middle. */
export function hann(length: number): Float64Array {
  return Float64Array.from({ length }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / length));
}
