/** Streaming sample-rate converter: feed blocks, get blocks; state carries over. */
export interface Resampler {
  /** Convert the next block. Returns new samples at the target rate (may be empty). */
  push(block: Float32Array): Float32Array;
  /** The samples still inside the filter's delay; call once at the end. */
  flush(): Float32Array;
}

/** Rates whose ratio needs more phases than this share a table of this many, taken at the nearest. */
const MAX_PHASES = 2048;
/** Zero crossings of the sinc on each side. */
const LOBES = 10;
const KAISER_BETA = 6.5;

/**
 * Windowed-sinc (Kaiser, beta 6.5) converter between any two rates in hertz; cut-off at 92 % of the lower Nyquist.
 * Output sample n stands at input time n * from / to: the filter's delay is removed.
 */
export function createResampler(from: number, to: number): Resampler {
  if (from === to) return { push: (block) => block, flush: () => new Float32Array(0) };
  const ratio = from / to;
  const scale = Math.min(1, to / from) * 0.92;
  const reach = Math.ceil(LOBES / scale);
  const taps = 2 * reach;
  // Output n needs phase (n * from / to) mod 1: a multiple of 1 / (to / gcd).
  const phases = Math.min(MAX_PHASES, to / gcd(Math.round(from), Math.round(to)));
  const table = kernelTable(reach, scale, phases);
  const step = ratio;

  // `buffer` holds input from absolute index `origin` on; zeros stand before the first sample.
  let buffer = new Float32Array(reach);
  let origin = -reach;
  let produced = 0;

  function run(): Float32Array {
    const end = origin + buffer.length;
    const available = Math.max(0, Math.ceil((end - reach) / step) - produced);
    const out = new Float32Array(available);
    const input = buffer;
    let count = 0;
    for (; count < available; count++) {
      const position = (produced + count) * step;
      const base = Math.floor(position);
      if (base + reach >= end) break;
      const row = Math.round((position - base) * phases) * taps;
      const first = base - reach + 1 - origin;
      let even = 0;
      let odd = 0;
      for (let i = 0; i < taps; i += 2) {
        even += input[first + i] * table[row + i];
        odd += input[first + i + 1] * table[row + i + 1];
      }
      out[count] = even + odd;
    }
    produced += count;
    const keepFrom = Math.max(0, Math.floor(produced * step) - reach + 1 - origin);
    buffer = buffer.slice(keepFrom);
    origin += keepFrom;
    return count === available ? out : out.slice(0, count);
  }

  return {
    push(block) {
      const joined = new Float32Array(buffer.length + block.length);
      joined.set(buffer);
      joined.set(block, buffer.length);
      buffer = joined;
      return run();
    },
    flush() {
      const total = Math.ceil((origin + buffer.length) / step);
      const joined = new Float32Array(buffer.length + reach + Math.ceil(step) + 1);
      joined.set(buffer);
      buffer = joined;
      const rest = run();
      const wanted = Math.max(0, total - (produced - rest.length));
      return rest.slice(0, wanted);
    },
  };
}

/** Convert a whole signal at once. */
export function resample(samples: Float32Array, from: number, to: number): Float32Array {
  if (from === to) return samples;
  const resampler = createResampler(from, to);
  const parts: Float32Array[] = [];
  for (let i = 0; i < samples.length; i += 65536) parts.push(resampler.push(samples.subarray(i, i + 65536)));
  parts.push(resampler.flush());
  const out = new Float32Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}

const tables = new Map<string, Float32Array>();

function kernelTable(reach: number, scale: number, phases: number): Float32Array {
  const key = `${reach}/${scale}/${phases}`;
  let table = tables.get(key);
  if (!table) tables.set(key, (table = computeTable(reach, scale, phases)));
  return table;
}

function computeTable(reach: number, scale: number, phases: number): Float32Array {
  const taps = 2 * reach;
  const table = new Float32Array((phases + 1) * taps);
  for (let p = 0; p <= phases; p++) {
    for (let i = 0; i < taps; i++) {
      const t = i - reach + 1 - p / phases;
      const x = t * scale;
      const sinc = x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x);
      const u = t / reach;
      const window = Math.abs(u) >= 1 ? 0 : besselI0(KAISER_BETA * Math.sqrt(1 - u * u)) / besselI0(KAISER_BETA);
      table[p * taps + i] = scale * sinc * window;
    }
  }
  return table;
}

/** Modified Bessel function of the first kind, order zero (power series). */
function besselI0(x: number): number {
  let sum = 1;
  let term = 1;
  for (let k = 1; k < 40; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}
