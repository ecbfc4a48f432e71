import { midiToHz } from '../music/pitch';
import { cholesky, whiten, whitenAll } from '../signal/linear';
import { median } from '../signal/stats';
import { TOP_HZ } from './timbre';
import { ColourPoint, CrossOver, LegColour } from './types';

export type CrossOverFit = Omit<CrossOver, 'timeS'>;

const BIN_ST = 0.75;
/** Fewest bins a leg must cover. */
const LEAST_BINS = 8;
/** 10-90 % widths tried, semitones. */
const WIDTHS = [0.6, 1.2, 2, 3, 4.5, 6.5, 9];
const STEP_ST = 0.5;
/** A logistic goes from 10 to 90 % over 4.394 of its units. */
const TEN_TO_NINETY = 2 * Math.log(9);
/** The crossing must lie this far inside the leg to be seen from both sides. */
const EDGE_ST = 2;
/** Smallest rise of the timbre score that counts as a change of register, and the spread of rises expected. */
const MIN_RISE = 1;
const RISE_SPREAD = 2.5;
/** Going down the change lies lower than going up: by so much, give or take (common practice: hysteresis). */
const HYSTERESIS_ST = 1.2;
const HYSTERESIS_SPREAD = 1.8;
const MOST_HYSTERESIS_ST = 5;
/** Two changes of one leg lie at least this far apart (a fourth to a fifth; common practice). */
const APART_ST = 4.5;
/** Nats of evidence under which nothing is said, and at which half the confidence is reached. */
const LEAST_EVIDENCE = 5;
const HALF_EVIDENCE = 8;
/** A second change has to be plainer. */
const LEAST_SECOND = 17;
const WIDEST_SECOND_ST = 5.5;
const LEAST_SECOND_RISE = 0.4;

// What the score does for reasons of its own, as a Gaussian process over pitch shared by both legs:
// a slope, a slow bend, and the narrow bumps where a harmonic passes a formant.
/** Where the whole score lies means nothing. */
const LEVEL_SD = 5;
const SLOPE_PER_OCTAVE = 1.2;
const SLOW = { sd: 0.15, reachSt: 7 };
const BUMPS = { sd: 0.1, reachSt: 1.2 };
/** The same legs apart: loudness differs going up and coming down. */
const LEG_SD = 0.2;
const LEG_SLOPE_PER_OCTAVE = 0.15;
/** From this far under the meeting of pitch and first formant the score may step by this much, and go on, for the vowel's sake. */
const TURN_REACH_ST = 3;
const TURN_SD = 2;
const TURN_BEND_ST = 4;
const NOISE_SD = 0.06;
/** With few harmonics under 4.5 kHz the score is hardly known: its noise where only five are left. */
const FEW_HARMONICS_SD = 0.7;

interface Bin {
  leg: number;
  x: number;
  y: number;
  noise: number;
}

/**
 * Where the timbre crosses over in one leg, or in a way up and the way down that belong together. The score is taken for
 * a smooth curve of pitch that both legs share (a Gaussian process), plus one logistic rise of a common height and width
 * that stands at a place of its own in each leg. Every pair of places and every width is weighed by how well it explains
 * the points; the answer is the mean over them, and the confidence grows with the evidence against having no rise at all.
 * One list per leg, lowest first.
 */
export function fitCrossOvers(legs: LegColour[], turnMidi = Infinity): CrossOverFit[][] {
  const none: CrossOverFit[][] = legs.map(() => []);
  const spans = legs.map(span);
  const long = spans.filter((s) => s !== null);
  if (long.length === 0) return none;
  if (long.length < legs.length) {
    // A leg too short to tell anything mustn't silence the one beside it.
    const fits = fitCrossOvers(
      legs.filter((_, leg) => spans[leg]),
      turnMidi,
    );
    return spans.map((s) => (s ? fits.shift()! : []));
  }
  const shapes = createShapes(
    legs.flatMap(({ points }, leg) => points.map(({ midi, score, noise }): Bin => ({ leg, x: midi, y: score, noise }))),
    long,
    legs,
    turnMidi,
  );
  const first = bestRise(shapes, shapes.points, []);
  if (!first || first.evidence < LEAST_EVIDENCE) return none;
  let found = [first];
  const second = bestRise(shapes, without(shapes, first), first.places);
  if (second && second.evidence > LEAST_SECOND && second.widthSt < WIDEST_SECOND_ST && second.rise > LEAST_SECOND_RISE * first.rise) {
    const again = bestRise(shapes, without(shapes, second), second.places);
    if (again) found = [again, second];
  }
  return legs.map((_, leg) =>
    found
      .map((rise) => ({ midi: rise.places[leg], widthSt: rise.widthSt, confidence: confidenceOf(rise.evidence) }))
      .sort((a, b) => a.midi - b.midi),
  );
}

const confidenceOf = (evidence: number) => Math.min(0.95, evidence / (evidence + HALF_EVIDENCE));

interface Span {
  low: number;
  high: number;
}

function span({ points }: LegColour): Span | null {
  if (points.length < LEAST_BINS) return null;
  const low = points[0].midi;
  const high = points[points.length - 1].midi;
  return high - low < 2 * EDGE_ST + 2 ? null : { low, high };
}

/**
 * A leg's colour from its frames (NaN scores are skipped): medians of three quarters of a semitone, so that slow and fast parts
 * of a glide weigh the same, with the scatter between neighbours as their noise.
 */
export function colourOf(midi: ArrayLike<number>, score: ArrayLike<number>): ColourPoint[] {
  const at = new Map<number, { x: number[]; y: number[] }>();
  for (let i = 0; i < midi.length; i++) {
    if (Number.isNaN(midi[i]) || Number.isNaN(score[i])) continue;
    const key = Math.round(midi[i] / BIN_ST);
    const s = at.get(key) ?? { x: [], y: [] };
    s.x.push(midi[i]);
    s.y.push(score[i]);
    at.set(key, s);
  }
  const points = [...at.entries()]
    .sort((a, b) => a[0] - b[0])
    .map(([, s]) => ({ midi: median(s.x), score: median(s.y), frames: s.x.length }));
  const bends = points.slice(1, -1).map((p, i) => Math.abs(p.score - (points[i].score + points[i + 2].score) / 2));
  // A middle value against the mean of its neighbours has 1.5 times one point's variance; 1.48 makes a deviation of a median.
  const scatter = bends.length ? (1.48 * median(bends)) / Math.sqrt(1.5) : 0;
  return points.map((p) => ({ midi: p.midi, score: p.score, noise: Math.hypot(noiseAt(p.midi, p.frames), scatter) }));
}

/** How far a pitch lies beyond the vowel's turn, semitones. */
const beyond = (x: number, turnMidi: number) => Math.max(0, x - turnMidi + TURN_REACH_ST);

function covariance(a: Bin, b: Bin, middle: number, turnMidi: number): number {
  const d = a.x - b.x;
  const slope = ((a.x - middle) / 12) * ((b.x - middle) / 12);
  let k = LEVEL_SD ** 2 + SLOPE_PER_OCTAVE ** 2 * slope;
  k += SLOW.sd ** 2 * Math.exp(-0.5 * (d / SLOW.reachSt) ** 2) + BUMPS.sd ** 2 * Math.exp(-0.5 * (d / BUMPS.reachSt) ** 2);
  const past = beyond(a.x, turnMidi);
  const alsoPast = beyond(b.x, turnMidi);
  if (past > 0 && alsoPast > 0)
    k +=
      TURN_SD ** 2 * Math.min(1, past / TURN_REACH_ST) * Math.min(1, alsoPast / TURN_REACH_ST) * Math.exp(-0.5 * (d / TURN_BEND_ST) ** 2);
  if (a.leg === b.leg) k += LEG_SD ** 2 + LEG_SLOPE_PER_OCTAVE ** 2 * slope;
  return k;
}

/** Least noise of a score: more with few frames and few harmonics. */
function noiseAt(midi: number, frames: number): number {
  const harmonics = TOP_HZ / midiToHz(midi);
  return NOISE_SD * Math.sqrt(1 + 4 / frames) + FEW_HARMONICS_SD * (5 / Math.max(1, harmonics)) ** 4;
}

/**
 * The points and every logistic shape, whitened by the covariance, so that fits are sums of products. A shape belongs to one
 * leg, a width and a centre; its number is width * centres + centre.
 */
interface Shapes {
  points: Float64Array;
  centres: Float64Array;
  /** Of each leg, bins x shapes, row major; rows of zeros make the bins a multiple of four. */
  whitened: Float64Array[];
  /** Whether a leg can be said to cross at a centre: not near its ends. */
  open: boolean[][];
  /** Squared size of each leg's shapes. */
  sizes: Float64Array[];
  /** Product of the first leg's shape w * centres + i with the second's w * centres + j, at (w * centres + i) * centres + j. */
  products: Float64Array;
  upFirst: boolean;
}

function createShapes(bins: Bin[], spans: Span[], legs: LegColour[], turnMidi: number): Shapes {
  const n = bins.length;
  const low = Math.min(...spans.map((s) => s.low));
  const high = Math.max(...spans.map((s) => s.high));
  const middle = (low + high) / 2;
  const matrix = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) matrix[i * n + j] = matrix[j * n + i] = covariance(bins[i], bins[j], middle, turnMidi);
    matrix[i * n + i] += bins[i].noise ** 2;
  }
  cholesky(matrix, n);
  const centres = Float64Array.from(
    { length: Math.floor((high - low - 2 * EDGE_ST) / STEP_ST) + 1 },
    (_, i) => low + EDGE_ST + i * STEP_ST,
  );
  const count = WIDTHS.length * centres.length;
  const turned = Float64Array.from({ length: count }, (_, s) =>
    Math.exp((TEN_TO_NINETY / WIDTHS[Math.floor(s / centres.length)]) * (centres[s % centres.length] - middle)),
  );
  const whitened = legs.map((_, leg) => {
    const from = bins.findIndex((b) => b.leg === leg);
    const shapes = new Float64Array(4 * Math.ceil(n / 4) * count);
    for (let i = from; i < n && bins[i].leg === leg; i++)
      for (let s = 0, w = 0; w < WIDTHS.length; w++) {
        // exp of a difference is a product: one for the bin, one for the centre.
        const steep = TEN_TO_NINETY / WIDTHS[w];
        const own = Math.exp(-steep * (bins[i].x - middle));
        for (let c = 0; c < centres.length; c++, s++) shapes[i * count + s] = 1 / (1 + own * turned[s]);
      }
    whitenAll(matrix, shapes, n, count, from);
    return shapes;
  });
  const open = spans.map((s) => Array.from(centres, (c) => c >= s.low + EDGE_ST && c <= s.high - EDGE_ST));
  const points = whiten(
    matrix,
    Float64Array.from(bins, (b) => b.y),
    n,
  );
  const sizes = whitened.map((shapes) => sumProducts(shapes, shapes, n, count));
  const products = legs.length > 1 ? crossProducts(whitened[0], whitened[1], n, centres.length) : new Float64Array(0);
  return { points, centres, whitened, open, sizes, products, upFirst: legs[0].direction === 'up' };
}

/** Column by column sums of products of two matrices of n rows. */
function sumProducts(a: Float64Array, b: Float64Array, n: number, count: number): Float64Array {
  const out = new Float64Array(count);
  for (let i = 0, at = 0; i < n; i++) for (let s = 0; s < count; s++, at++) out[s] += a[at] * b[at];
  return out;
}

/**
 * Products of every shape of the first leg with the second leg's of the same width whose centre lies within
 * MOST_HYSTERESIS_ST.
 */
function crossProducts(a: Float64Array, b: Float64Array, n: number, centres: number): Float64Array {
  const count = WIDTHS.length * centres;
  const reach = Math.round(MOST_HYSTERESIS_ST / STEP_ST);
  const out = new Float64Array(count * centres);
  // Four rows at a time: the sums are fetched and put back a quarter as often.
  for (let row = 0; row < n; row += 4)
    for (let w = 0; w < count; w += centres)
      for (let i = 0; i < centres; i++) {
        const own = row * count + w + i;
        const a0 = a[own];
        const a1 = a[own + count];
        const a2 = a[own + 2 * count];
        const a3 = a[own + 3 * count];
        const to = Math.min(centres - 1, i + reach);
        let other = row * count + w + Math.max(0, i - reach);
        for (let j = Math.max(0, i - reach), at = (w + i) * centres + j; j <= to; j++, at++, other++)
          out[at] += a0 * b[other] + a1 * b[other + count] + a2 * b[other + 2 * count] + a3 * b[other + 3 * count];
      }
  return out;
}

/** Column `s` of a leg's whitened shapes. */
const column = ({ whitened, points, sizes }: Shapes, leg: number, s: number) => {
  const count = sizes[leg].length;
  return points.map((_, i) => whitened[leg][i * count + s]);
};

interface Rise {
  places: number[];
  widthSt: number;
  rise: number;
  /** Nats by which the points are likelier with the rise than without. */
  evidence: number;
  /** The best-fitting whitened shape. */
  shape: Float64Array;
}

const without = ({ points }: Shapes, { rise, shape }: Rise) => points.map((p, i) => p - rise * shape[i]);

/** The rise that explains `points` (whitened) best, at least APART_ST from places already taken. */
function bestRise(shapes: Shapes, points: Float64Array, taken: number[]): Rise | null {
  const { centres, whitened, open, sizes, products, upFirst } = shapes;
  const n = points.length;
  const count = sizes[0].length;
  const reach = Math.round(MOST_HYSTERESIS_ST / STEP_ST);
  const fits = whitened.map((columns) => {
    const out = new Float64Array(count);
    for (let i = 0, at = 0; i < n; i++) for (let s = 0; s < count; s++, at++) out[s] += points[i] * columns[at];
    return out;
  });
  const free = open.map((ofLeg, leg) => ofLeg.map((o, c) => o && !(Math.abs(centres[c] - taken[leg]) < APART_ST)));
  // How usual each distance between the two centres is, second less first.
  const usual = Float64Array.from({ length: 2 * reach + 1 }, (_, d) => {
    const lower = (upFirst ? reach - d : d - reach) * STEP_ST;
    return -0.5 * ((lower - HYSTERESIS_ST) / HYSTERESIS_SPREAD) ** 2;
  });
  // Best first: trials are weighed against the best, so two passes spare keeping them.
  let best = { log: -Infinity, first: 0, second: -1, rise: 0 };
  // Sums over all trials: weight, log width, place in each leg. An array: shared variables would be boxed at every trial.
  const sums = new Float64Array(4);
  const weigh = (first: number, second: number, fit: number, size: number, prior: number, collect: boolean) => {
    const precision = size + 1 / RISE_SPREAD ** 2;
    const rise = fit / precision;
    if (rise < MIN_RISE) return;
    const most = 0.5 * fit * rise + prior; // without the logarithm, which only takes away
    if (most < (collect ? best.log - 30 : best.log)) return;
    const log = most - 0.5 * Math.log(RISE_SPREAD ** 2 * precision);
    if (!collect) {
      if (log > best.log) best = { log, first, second, rise };
    } else if (log > best.log - 30) {
      const p = Math.exp(log - best.log);
      sums[0] += p;
      sums[1] += p * Math.log(WIDTHS[Math.floor(first / centres.length)]);
      sums[2] += p * centres[first % centres.length];
      if (second >= 0) sums[3] += p * centres[second % centres.length];
    }
  };
  const norms = Float64Array.from(centres, (_, i) => {
    let sum = 0;
    for (let j = Math.max(0, i - reach); j <= Math.min(centres.length - 1, i + reach); j++)
      if (free[1]?.[j]) sum += Math.exp(usual[j - i + reach]);
    return Math.log(sum);
  });
  const all = (collect: boolean) => {
    for (let first = 0; first < count; first++) {
      const i = first % centres.length;
      if (!free[0][i]) continue;
      if (!free[1]) {
        weigh(first, -1, fits[0][first], sizes[0][first], 0, collect);
        continue;
      }
      const to = Math.min(centres.length - 1, i + reach);
      for (let j = Math.max(0, i - reach); j <= to; j++) {
        if (!free[1][j]) continue;
        const second = first - i + j;
        const size = sizes[0][first] + sizes[1][second] + 2 * products[first * centres.length + j];
        weigh(first, second, fits[0][first] + fits[1][second], size, usual[j - i + reach] - norms[i], collect);
      }
    }
  };
  all(false);
  if (best.log === -Infinity) return null;
  all(true);
  const shape = column(shapes, 0, best.first);
  if (best.second >= 0) column(shapes, 1, best.second).forEach((v, i) => (shape[i] += v));
  return {
    places: whitened.map((_, leg) => sums[2 + leg] / sums[0]),
    widthSt: Math.exp(sums[1] / sums[0]),
    rise: best.rise,
    evidence: best.log + Math.log(sums[0] / (WIDTHS.length * open[0].filter(Boolean).length)),
    shape,
  };
}
