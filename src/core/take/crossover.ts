import { midiToHz } from '../music/pitch';
import { cholesky, dot, whiten } from '../signal/linear';
import { median } from '../signal/stats';
import { CrossOver, Direction } from './types';

/** A leg's points: pitch and timbre score (NaN scores are skipped). */
export interface LegPoints {
  direction: Direction;
  midi: ArrayLike<number>;
  score: ArrayLike<number>;
}


export type CrossOverFit = Omit<CrossOver, 'timeS'>;

const BIN_ST = 0.5;
/** Fewest half-semitones a leg must cover. */
const LEAST_BINS = 10;
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
const LEAST_EVIDENCE = 6;
const HALF_EVIDENCE = 9;
/** A second change has to be plainer. */
const LEAST_SECOND = 20;
const WIDEST_SECOND_ST = 5.5;
const LEAST_SECOND_RISE = 0.4;

// What the score does for reasons of its own, as a Gaussian process over pitch shared by both legs:
// a slope, a slow bend, and the narrow bumps where a harmonic passes a formant.
const SLOPE_PER_OCTAVE = 1.2;
const SLOW = { sd: 0.15, reachSt: 7 };
const BUMPS = { sd: 0.1, reachSt: 1.2 };
/** The same legs apart: loudness differs going up and coming down. */
const LEG_SD = 0.2;
const LEG_SLOPE_PER_OCTAVE = 0.15;
/** From this far under the meeting of pitch and first formant the score may step by this much, and go on, for the vowel's sake. */
const TURN_REACH_ST = 4;
const TURN_SD = 2;
const NOISE_SD = 0.06;
/** With few harmonics under 4.5 kHz the score is hardly known: its noise where only five are left. */
const FEW_HARMONICS_SD = 0.7;

interface Bin {
  leg: number;
  x: number;
  y: number;
  points: number;
}

/**
 * Where the timbre crosses over in one leg, or in a way up and the way down that belong together. The score is taken for
 * a smooth curve of pitch that both legs share (a Gaussian process), plus one logistic rise of a common height and width
 * that stands at a place of its own in each leg. Every pair of places and every width is weighed by how well it explains
 * the points; the answer is the mean over them, and the confidence grows with the evidence against having no rise at all.
 * One list per leg, lowest first.
 */
export function fitCrossOvers(legs: LegPoints[], turnMidi = Infinity): CrossOverFit[][] {
  const bins = legs.flatMap(binned);
  const spans = legs.map((_, leg) => span(bins, leg));
  const none: CrossOverFit[][] = legs.map(() => []);
  if (spans.some((s) => s === null)) return none;
  const shapes = createShapes(bins, spans as Span[], legs, turnMidi);
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

function span(bins: Bin[], leg: number): Span | null {
  const own = bins.filter((b) => b.leg === leg);
  if (own.length < LEAST_BINS) return null;
  const low = own[0].x;
  const high = own[own.length - 1].x;
  return high - low < 2 * EDGE_ST + 2 ? null : { low, high };
}

/** Median score in half-semitone bins, so that slow and fast parts of a glide weigh the same. */
function binned({ midi, score }: LegPoints, leg: number): Bin[] {
  const at = new Map<number, { x: number[]; y: number[] }>();
  for (let i = 0; i < midi.length; i++) {
    if (Number.isNaN(midi[i]) || Number.isNaN(score[i])) continue;
    const key = Math.round(midi[i] / BIN_ST);
    const s = at.get(key) ?? { x: [], y: [] };
    s.x.push(midi[i]);
    s.y.push(score[i]);
    at.set(key, s);
  }
  return [...at.entries()].sort((a, b) => a[0] - b[0]).map(([, s]) => ({ leg, x: median(s.x), y: median(s.y), points: s.x.length }));
}

/** How far a pitch lies beyond the vowel's turn, semitones. */
const beyond = (x: number, turnMidi: number) => Math.max(0, x - turnMidi + TURN_REACH_ST);

function covariance(a: Bin, b: Bin, middle: number, turnMidi: number): number {
  const d = a.x - b.x;
  const slope = ((a.x - middle) / 12) * ((b.x - middle) / 12);
  let k = 25 + SLOPE_PER_OCTAVE ** 2 * slope;
  k += SLOW.sd ** 2 * Math.exp(-0.5 * (d / SLOW.reachSt) ** 2) + BUMPS.sd ** 2 * Math.exp(-0.5 * (d / BUMPS.reachSt) ** 2);
  const past = beyond(a.x, turnMidi);
  const alsoPast = beyond(b.x, turnMidi);
  if (past > 0 && alsoPast > 0) k += TURN_SD ** 2 * Math.min(1, past / 3) * Math.min(1, alsoPast / 3) * Math.exp(-0.5 * (d / 4) ** 2);
  if (a.leg === b.leg) k += LEG_SD ** 2 + LEG_SLOPE_PER_OCTAVE ** 2 * slope;
  return k;
}

/** Score noise of a bin: more with few points and few harmonics. */
function noiseAt({ x, points }: Bin): number {
  const harmonics = 4500 / midiToHz(x);
  return NOISE_SD * Math.sqrt(1 + 4 / points) + FEW_HARMONICS_SD * (5 / Math.max(1, harmonics)) ** 4;
}

/** The points and every logistic shape, whitened by the covariance: fits are then dot products. */
interface Shapes {
  points: Float64Array;
  centres: Float64Array;
  legs: LegPoints[];
  spans: Span[];
  /** Shape of a leg at [width][leg][centre]; null where the centre lies too near that leg's edge. */
  at: (Float64Array | null)[][][];
}

function createShapes(bins: Bin[], spans: Span[], legs: LegPoints[], turnMidi: number): Shapes {
  const n = bins.length;
  const low = Math.min(...spans.map((s) => s.low));
  const high = Math.max(...spans.map((s) => s.high));
  const middle = (low + high) / 2;
  const matrix = new Float64Array(n * n);
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) matrix[i * n + j] = matrix[j * n + i] = covariance(bins[i], bins[j], middle, turnMidi);
    matrix[i * n + i] += noiseAt(bins[i]) ** 2;
  }
  cholesky(matrix, n);
  const centres = Float64Array.from(
    { length: Math.floor((high - low - 2 * EDGE_ST) / STEP_ST) + 1 },
    (_, i) => low + EDGE_ST + i * STEP_ST,
  );
  const at = WIDTHS.map((width) =>
    legs.map((_, leg) =>
      Array.from(centres, (centre) => {
        if (centre < spans[leg].low + EDGE_ST || centre > spans[leg].high - EDGE_ST) return null;
        const shape = Float64Array.from(bins, (b) => (b.leg === leg ? 1 / (1 + Math.exp((-TEN_TO_NINETY * (b.x - centre)) / width)) : 0));
        return whiten(matrix, shape, n);
      }),
    ),
  );
  const points = whiten(
    matrix,
    Float64Array.from(bins, (b) => b.y),
    n,
  );
  return { points, centres, legs, spans, at };
}

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
function bestRise({ centres, legs, at }: Shapes, points: Float64Array, taken: number[]): Rise | null {
  const trials: { log: number; w: number; c: number[]; rise: number }[] = [];
  const upFirst = legs[0].direction === 'up';
  const free = (leg: number, c: number) => taken.length === 0 || Math.abs(centres[c] - taken[leg]) >= APART_ST;
  const weigh = (w: number, c: number[], fit: number, own: number, prior: number) => {
    const precision = own + 1 / RISE_SPREAD ** 2;
    const rise = fit / precision;
    if (rise < MIN_RISE) return;
    trials.push({ log: 0.5 * fit * rise - 0.5 * Math.log(RISE_SPREAD ** 2 * precision) + prior, w, c, rise });
  };
  let hypotheses = 0;
  at.forEach((ofLegs, w) => {
    const [a, b] = ofLegs;
    const fits = ofLegs.map((shapes) => shapes.map((s) => (s ? dot(s, points) : 0)));
    const sizes = ofLegs.map((shapes) => shapes.map((s) => (s ? dot(s, s) : 0)));
    for (let i = 0; i < centres.length; i++) {
      const first = a[i];
      if (!first) continue;
      hypotheses++;
      if (!free(0, i)) continue;
      if (!b) {
        weigh(w, [i], fits[0][i], sizes[0][i], 0);
        continue;
      }
      // The places of the other leg, each as likely as its distance is usual.
      const others: { j: number; prior: number }[] = [];
      let sum = 0;
      for (let j = 0; j < centres.length; j++) {
        if (!b[j] || !free(1, j)) continue;
        const lower = upFirst ? centres[i] - centres[j] : centres[j] - centres[i];
        if (Math.abs(lower) > MOST_HYSTERESIS_ST) continue;
        const prior = -0.5 * ((lower - HYSTERESIS_ST) / HYSTERESIS_SPREAD) ** 2;
        others.push({ j, prior });
        sum += Math.exp(prior);
      }
      for (const { j, prior } of others)
        weigh(w, [i, j], fits[0][i] + fits[1][j], sizes[0][i] + sizes[1][j] + 2 * dot(first, b[j]!), prior - Math.log(sum));
    }
  });
  if (trials.length === 0) return null;
  const best = trials.reduce((x, y) => (y.log > x.log ? y : x));
  let total = 0;
  let width = 0;
  const places = legs.map(() => 0);
  for (const t of trials) {
    const p = Math.exp(t.log - best.log);
    total += p;
    width += p * Math.log(WIDTHS[t.w]);
    t.c.forEach((c, leg) => (places[leg] += p * centres[c]));
  }
  const shape = new Float64Array(points.length);
  best.c.forEach((c, leg) => at[best.w][leg][c]!.forEach((v, i) => (shape[i] += v)));
  return {
    places: places.map((p) => p / total),
    widthSt: Math.exp(width / total),
    rise: best.rise,
    evidence: best.log + Math.log(total / hypotheses),
    shape,
  };
}
