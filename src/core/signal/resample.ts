import { convert, copySamples, floats, place, reserve } from './kernel';

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

/** Input samples converted in one go. */
const CHUNK = 8192;

/**
 * Windowed-sinc (Kaiser, beta 6.5) converter between any two rates in hertz; cut-off at 92 % of the lower Nyquist.
 * Output sample n stands at input time n * from / to: the filter's delay is removed.
 */
export function createResampler(from: number, to: number): Resampler {
  if (from === to) return { push: (block) => block, flush: () => new Float32Array(0) };
  const step = from / to;
  const filter = filterFor(from, to);
  const { reach } = filter;

  // The tail of the input that later outputs still need, from absolute index `origin` on; zeros stand before the first sample.
  let tail = new Float32Array(reach);
  let origin = -reach;
  let produced = 0;

  function push(block: Float32Array): Float32Array {
    const parts: Float32Array[] = [];
    for (let at = 0; at < block.length; at += CHUNK) parts.push(pushChunk(block.subarray(at, at + CHUNK)));
    return parts.length === 1 ? parts[0] : joined(parts);
  }

  function pushChunk(chunk: Float32Array): Float32Array {
    const input = joined([tail, chunk]);
    const end = origin + input.length;
    const count = Math.max(0, Math.ceil((end - reach) / step) - produced);
    copySamples(input, 0, input.length, filter.input);
    convert(count, produced, step, origin, reach - 1, filter.input, filter.table, 2 * reach, filter.phases, filter.output);
    const out = floats().slice(filter.output / 4, filter.output / 4 + count);
    produced += count;
    const keepFrom = Math.max(0, Math.min(input.length, Math.floor(produced * step) - reach + 1 - origin));
    tail = input.slice(keepFrom);
    origin += keepFrom;
    return out;
  }

  return {
    push,
    flush() {
      const total = Math.ceil((origin + tail.length) / step);
      const rest = push(new Float32Array(reach + Math.ceil(step) + 1));
      return rest.slice(0, Math.max(0, total - (produced - rest.length)));
    },
  };
}

function joined(parts: Float32Array[]): Float32Array<ArrayBuffer> {
  const out = new Float32Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

/** Convert a whole signal at once. */
export function resample(samples: Float32Array, from: number, to: number): Float32Array {
  if (from === to) return samples;
  const resampler = createResampler(from, to);
  const parts: Float32Array[] = [];
  for (let i = 0; i < samples.length; i += 65536) parts.push(resampler.push(samples.subarray(i, i + 65536)));
  parts.push(resampler.flush());
  return joined(parts);
}

function gcd(a: number, b: number): number {
  return b === 0 ? a : gcd(b, a % b);
}

/** A filter in the kernel's memory with room for its input and output. */
interface Filter {
  reach: number;
  phases: number;
  table: number;
  input: number;
  output: number;
}

const filters = new Map<string, Filter>();

function filterFor(from: number, to: number): Filter {
  const key = `${from}/${to}`;
  let filter = filters.get(key);
  if (!filter) filters.set(key, (filter = createFilter(from, to)));
  return filter;
}

function createFilter(from: number, to: number): Filter {
  const scale = Math.min(1, to / from) * 0.92;
  // Rows of the table are read eight values at a time.
  const reach = 4 * Math.ceil(LOBES / scale / 4);
  // Output n needs phase (n * from / to) mod 1: a multiple of 1 / (to / gcd).
  const phases = Math.min(MAX_PHASES, to / gcd(Math.round(from), Math.round(to)));
  const inputLength = CHUNK + 4 * reach + Math.ceil(from / to) + 8;
  return {
    reach,
    phases,
    table: place(computeTable(reach, scale, phases)),
    input: reserve(inputLength),
    output: reserve(Math.ceil((inputLength * to) / from) + 8),
  };
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
      table[p * taps + i] = sinc * window;
    }
    // Every phase passes a constant alike, or DC would come out as a tone.
    const row = table.subarray(p * taps, (p + 1) * taps);
    const sum = row.reduce((a, b) => a + b, 0);
    row.forEach((v, i) => (row[i] = v / sum));
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
