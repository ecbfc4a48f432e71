import { KERNEL_BYTES } from './kernel-bytes';

/** Four frames go through a transform at once, one a lane: value `row` of lane `j` is at `4 * row + j`. */
export const LANES = 4;

interface KernelExports {
  powerSpectra(
    m: number,
    quarters: number,
    x0: number,
    x1: number,
    x2: number,
    x3: number,
    t0: number,
    t1: number,
    t2: number,
    t3: number,
    re: number,
    im: number,
    reversed: number,
    twiddles: number,
    turns: number,
    power: number,
  ): void;
  fourthRoots(count: number, power: number, out: number): void;
  forget(
    rows: number,
    lanes: number,
    power: number,
    held: number,
    fed: number,
    keep: number,
    feed: number,
    over: number,
    least: number,
    sums: number,
  ): void;
  autocorrelations(
    m: number,
    lags: number,
    power: number,
    weights: number,
    correction: number,
    re: number,
    im: number,
    reversed: number,
    twiddles: number,
    turns: number,
    out: number,
  ): void;
  convert(
    count: number,
    first: number,
    step: number,
    origin: number,
    before: number,
    input: number,
    table: number,
    taps: number,
    phases: number,
    out: number,
  ): void;
}

const PAGE_BYTES = 65536;
/** Floats between buffers that are walked side by side: a distance of a power of two makes their lines fight for one place in the cache. */
const PAD = 80;
const memory = new WebAssembly.Memory({ initial: 16 });
const bytes = Uint8Array.from(atob(KERNEL_BYTES), (c) => c.charCodeAt(0));
const kernel = new WebAssembly.Instance(new WebAssembly.Module(bytes), { env: { memory } }).exports as unknown as KernelExports;

let used = 1024;
let view = new Float32Array(memory.buffer);

/** The kernel's memory as floats. Taken afresh at each use: growing the memory moves it. */
export function floats(): Float32Array {
  if (view.buffer !== memory.buffer) view = new Float32Array(memory.buffer);
  return view;
}

/** Room for `count` floats in the kernel's memory, zeroed, for good; its address in bytes. */
export function reserve(count: number): number {
  const address = used;
  used += Math.ceil((count * 4) / 16) * 16;
  const missing = used - memory.buffer.byteLength;
  if (missing > 0) memory.grow(Math.ceil(missing / PAGE_BYTES));
  return address;
}

/** Put values into the kernel's memory for good; their address in bytes. */
export function place(values: ArrayLike<number>): number {
  const address = reserve(values.length);
  floats().set(values, address / 4);
  return address;
}

/** Copy `count` samples from `from` on to an address; zeros stand where the signal doesn't reach. */
export function copySamples(samples: Float32Array, from: number, count: number, address: number): void {
  const target = floats();
  const at = address / 4;
  const first = Math.max(0, Math.min(count, -from));
  const last = Math.max(first, Math.min(count, samples.length - from));
  if (first > 0) target.fill(0, at, at + first);
  if (last > first) target.set(samples.subarray(from + first, from + last), at + first);
  if (last < count) target.fill(0, at + last, at + count);
}

/** Transforms of four real windows of `size` samples; each call overwrites the answers of the last. */
export interface FourTransforms {
  readonly size: number;
  /** Address of the last power spectra: what is changed there is what the other methods see. */
  readonly power: number;
  /**
   * Power spectra (size / 2 + 1 rows) of windows at addresses `x` under tapers at addresses `t`: `size` values each, of
   * which those from `length` on are zeros in the tapers.
   */
  powerSpectra(x: ArrayLike<number>, t: ArrayLike<number>, length?: number): number;
  /** Fourth roots of the last power spectra. */
  fourthRoots(): number;
  /**
   * Autocorrelations, lags 0 to `lags` (at most size / 4 + 2), of the last power spectra weighed by `weights` (size / 2 + 1 values), relative to
   * lag 0 and times `correction` (a value a lag). Row 0 holds the weighed energy itself. Both are addresses.
   */
  autocorrelations(lags: number, weights: number, correction: number): number;
}

const plans = new Map<number, FourTransforms>();

/** The shared plan for a power-of-two size (32 to 4096). Its methods answer with addresses of rows of four lanes. */
export function fourTransforms(size: number): FourTransforms {
  let plan = plans.get(size);
  if (!plan) plans.set(size, (plan = createFourTransforms(size)));
  return plan;
}

function createFourTransforms(size: number): FourTransforms {
  const m = size / 2;
  if (!Number.isInteger(Math.log2(size)) || m < 16 || m > 2048)
    throw new RangeError(`The transform size ${size} must be a power of two from 32 to 4096.`);
  const re = reserve(LANES * m + PAD);
  const im = reserve(LANES * m);
  const power = reserve(LANES * (m + 1));
  const roots = reserve(LANES * (m + 1));
  const answer = reserve(LANES * (m + 1));
  const [reversed, halfReversed] = [m, m / 2].map(placeReversed);
  const [twiddles, halfTwiddles] = [m, m / 2].map((points) => place(stageTwiddles(points)));
  const turns = place(Array.from({ length: 2 * m }, (_, i) => (i % 2 ? Math.sin : Math.cos)((2 * Math.PI * (i >> 1)) / size)));
  return {
    size,
    power,
    powerSpectra(x, t, length = size) {
      const quarters = Math.ceil((4 * length) / size);
      kernel.powerSpectra(m, quarters, x[0], x[1], x[2], x[3], t[0], t[1], t[2], t[3], re, im, reversed, twiddles, turns, power);
      return power;
    },
    fourthRoots() {
      kernel.fourthRoots(m + 1, power, roots);
      return roots;
    },
    autocorrelations(lags, weights, correction) {
      kernel.autocorrelations(m, lags, power, weights, correction, re, im, halfReversed, halfTwiddles, turns, answer);
      return answer;
    },
  };
}

function placeReversed(m: number): number {
  const bits = Math.log2(m);
  const address = reserve(m / 2);
  const table = new Uint16Array(memory.buffer, address, m);
  for (let i = 0; i < m; i++) {
    let r = 0;
    for (let b = 0; b < bits; b++) r |= ((i >> b) & 1) << (bits - 1 - b);
    table[i] = r;
  }
  return address;
}

/** w, w^2, w^3 for each radix-4 stage after the first, then w for a radix-2 stage where the size leaves one. */
function stageTwiddles(m: number): number[] {
  const out: number[] = [];
  const turn = (part: number) => out.push(Math.cos(2 * Math.PI * part), -Math.sin(2 * Math.PI * part));
  let q = 4;
  for (; 4 * q <= m; q *= 4) for (let k = 0; k < q; k++) for (let p = 1; p <= 3; p++) turn((k * p) / (4 * q));
  if (q < m) for (let k = 0; k < q; k++) turn(k / (2 * q));
  return out;
}

/** Taking a room's memory out of power spectra, as kernel/kernel.ts describes it; addresses in bytes. */
export const forget: KernelExports['forget'] = (...args) => kernel.forget(...args);

/** Polyphase conversion, as kernel/kernel.ts describes it; addresses in bytes. */
export const convert: KernelExports['convert'] = (...args) => kernel.convert(...args);
