import { midiToHz } from '../music/pitch';
import { cholesky, dot, multiply, whiten, whitenAll } from '../signal/linear';
import { Leg } from '../take/types';
import { headAt } from './blend';
import { overNoise } from './over-noise';

/**
 * The level of harmonic k of a slide at pitch m is taken for  level + filter(k f) + shape(k) - slope(m) log2 k + first(m) [k = 1]:
 * what belongs to the moment (loudness), to frequency (vowel, room and microphone, each take its own), and to the folds (a common
 * shape, how steeply the harmonics fall, how far the first stands out; going up and coming down nearly alike). Filter, slope and
 * first are smooth (Gaussian processes), so that all takes together give one posterior for slope and first over pitch, in which
 * a change from chest to head is a rise of both at once.
 */
export interface SourceModel {
  /** Pitches that the slides went over, MIDI. */
  lowMidi: number;
  highMidi: number;
  /** Nats by which each of some rises explains the harmonics better than none, beside others that are known; 0 for none at all. */
  evidenceFor(rises: Rise[], known: Rise[]): number[];
  /** The same for one rise, from each take alone. */
  evidenceByTake(rise: Rise, known: Rise[]): number[];
}

/** A change from chest to head: its middle going up and coming down, and its 10-90 % width. */
export interface Rise {
  upMidi: number;
  downMidi: number;
  widthSt: number;
}

/** What a whole change from chest to head does: the harmonics fall so much more steeply, dB an octave, and the first gains so much, dB (Fant's LF model from Rd 0.9 to 1.8, roughly). */
const SLOPE_OF_CHANGE = 2;
const FIRST_OF_CHANGE = 5;
/** A voice does so much of it, give or take; of a change already heard it isn't asked how much. */
const USUAL_CHANGE = 1;
const CHANGE_SD = 0.5;
const KNOWN_SD = 1;

/** Bins of the filter: 14 an octave from 55 Hz. */
const LOWEST_HZ = 55;
const BINS_PER_OCTAVE = 14;
const BINS = 95;
/** Pitches a semitone apart carry slope and first. */
const MOST_HARMONICS = 16;
const FEWEST_HARMONICS = 3;
// Standard deviations (dB; slope dB an octave) and reaches (octaves; semitones): tuned on singers and rooms of others.
const FILTER = [
  { sd: 9, reach: 0.18 },
  { sd: 12, reach: 1 },
];
const FILTER_NUGGET = 0.8;
const SHAPE_SD = 6;
const SLOPE = { level: 5, trend: 0.15, sd: 0.5, bump: 0.15, nugget: 0.1 };
const FIRST = { level: 10, trend: 0.25, sd: 1.2, bump: 0.5, nugget: 0.2 };
const REACH_ST = 6;
const BUMP_REACH_ST = 2;
/** Going up and coming down apart; the first twice as much. */
const APART = { sd: 0.35, nugget: 0.1 };

/** Learn the model from the slides of a voice, take by take; null where no harmonics are known. */
export function sourceModel(takes: Leg[][]): SourceModel | null {
  const pitches = takes.flat().flatMap((leg) => leg.harmonics ?? []);
  if (pitches.length === 0) return null;
  const lowMidi = Math.min(...pitches.map((p) => p.midi));
  const highMidi = Math.max(...pitches.map((p) => p.midi));
  const notes = Math.ceil(highMidi - lowMidi) + 1;
  const size = 4 * notes + MOST_HARMONICS;
  const told = takes.map((legs) => toldBy(legs, lowMidi, notes));
  const all = told.reduce((a, b) => ({ information: added(a.information, b.information), pull: added(a.pull, b.pull) }));

  const stepOf = (rise: Rise) => stepOver(rise, lowMidi, notes);
  /** Inverse of the prior covariance beside changes that are known. */
  const priorBeside = (known: Rise[]) => inverse(priorOf(notes, known.map(stepOf)), size);
  const evidence = ({ information, pull }: Told, rises: Rise[], prior: Float64Array): number[] => {
    const posterior = added(prior, information);
    cholesky(posterior, size);
    const count = rises.length;
    const steps = rises.map(stepOf);
    const pulled = new Float64Array(size * count);
    const own = steps.map((step, r) => {
      const seen = multiply(information, step, size);
      for (let i = 0; i < size; i++) pulled[i * count + r] = seen[i];
      return dot(step, seen);
    });
    const toward = steps.map((step) => dot(step, pull));
    whitenAll(posterior, pulled, size, count);
    const white = whiten(posterior, pull, size);
    for (let i = 0; i < size; i++)
      for (let r = 0; r < count; r++) {
        own[r] -= pulled[i * count + r] ** 2;
        toward[r] -= pulled[i * count + r] * white[i];
      }
    return rises.map((_, r) => betterBy(own[r], toward[r]));
  };
  return {
    lowMidi,
    highMidi,
    evidenceFor: (rises, known) => evidence(all, rises, priorBeside(known)),
    evidenceByTake(rise, known) {
      const prior = priorBeside(known);
      return told.flatMap((of) => evidence(of, [rise], prior));
    },
  };
}

/** What is told of the unknowns: a precision matrix, and that times their likeliest values. */
interface Told {
  information: Float64Array;
  pull: Float64Array;
}

const added = (a: Float64Array, b: Float64Array) => a.map((x, i) => x + b[i]);

/** Bayes factor, nats, of a change of the usual size (a Gaussian) against none, from how well a change is seen and what speaks for it. */
function betterBy(seen: number, toward: number): number {
  const precision = 1 / CHANGE_SD ** 2;
  const meant = toward + USUAL_CHANGE * precision;
  if (meant <= 0) return -Infinity;
  return 0.5 * (meant ** 2 / (seen + precision) - USUAL_CHANGE ** 2 * precision - Math.log(1 + seen / precision));
}

/** Where slope and first of each direction lie among the unknowns, and the shape after them. */
const slopeAt = (notes: number, up: boolean) => (up ? 0 : notes);
const firstAt = (notes: number, up: boolean) => (up ? 2 : 3) * notes;
const shapeAt = (notes: number) => 4 * notes;

function stepOver({ upMidi, downMidi, widthSt }: Rise, lowMidi: number, notes: number): Float64Array {
  const step = new Float64Array(4 * notes + MOST_HARMONICS);
  for (const up of [true, false])
    for (let n = 0; n < notes; n++) {
      const head = headAt(lowMidi + n, up ? upMidi : downMidi, widthSt);
      step[slopeAt(notes, up) + n] = SLOPE_OF_CHANGE * head;
      step[firstAt(notes, up) + n] = FIRST_OF_CHANGE * head;
    }
  return step;
}

/** Prior covariance of the unknowns; known changes may be of any size. */
function priorOf(notes: number, known: Float64Array[]): Float64Array {
  const size = 4 * notes + MOST_HARMONICS;
  const out = new Float64Array(size * size);
  const smooth = (sd: number, reach: number, apart: number) => sd ** 2 * Math.exp(-0.5 * (apart / reach) ** 2);
  for (const [of, at, more] of [
    [SLOPE, slopeAt, 1],
    [FIRST, firstAt, 2],
  ] as const)
    for (const a of [true, false])
      for (const b of [true, false])
        for (let i = 0; i < notes; i++)
          for (let j = 0; j < notes; j++) {
            const trend = of.trend ** 2 * (i - (notes - 1) / 2) * (j - (notes - 1) / 2);
            const same = i === j ? 1 : 0;
            let covariance =
              of.level ** 2 + trend + smooth(of.sd, REACH_ST, i - j) + smooth(of.bump, BUMP_REACH_ST, i - j) + same * of.nugget ** 2;
            if (a === b) covariance += more ** 2 * (smooth(APART.sd, REACH_ST, i - j) + same * APART.nugget ** 2);
            out[(at(notes, a) + i) * size + at(notes, b) + j] = covariance;
          }
  for (let k = 0; k < MOST_HARMONICS; k++) out[(shapeAt(notes) + k) * (size + 1)] = SHAPE_SD ** 2;
  for (const step of known)
    for (let i = 0; i < size; i++) for (let j = 0; j < size; j++) out[i * size + j] += KNOWN_SD ** 2 * step[i] * step[j];
  return out;
}

let filterPrecision: Float64Array | undefined;

/** Inverse of the filter's prior covariance. */
function filterPrior(): Float64Array {
  if (filterPrecision) return filterPrecision;
  const covariance = new Float64Array(BINS * BINS);
  for (let i = 0; i < BINS; i++)
    for (let j = 0; j < BINS; j++) {
      for (const { sd, reach } of FILTER) covariance[i * BINS + j] += sd ** 2 * Math.exp(-0.5 * ((i - j) / BINS_PER_OCTAVE / reach) ** 2);
      if (i === j) covariance[i * BINS + j] += FILTER_NUGGET ** 2;
    }
  return (filterPrecision = inverse(covariance, BINS));
}

/** What a take tells of slope, first and shape once its own filter and levels are put out of the way (their Schur complement). */
function toldBy(legs: Leg[], lowMidi: number, notes: number): Told {
  const size = 4 * notes + MOST_HARMONICS;
  const information = new Float64Array(size * size);
  const pull = new Float64Array(size);
  const all = BINS + size;
  const normal = new Float64Array(all * all);
  const right = new Float64Array(all);
  for (const { midi, up, harmonics } of overNoise(legs, MOST_HARMONICS)) {
    if (harmonics.length < FEWEST_HARMONICS) continue;
    const told = harmonics.map(({ number, db, sdDb }) => ({ db, precision: sdDb ** -2, row: rowOf(number, midi, up, lowMidi, notes) }));
    // The level of this pitch is anybody's: what remains is each harmonic against their mean.
    const total = told.reduce((sum, { precision }) => sum + precision, 0);
    const mean = new Map<number, number>();
    let meanDb = 0;
    for (const { db, precision, row } of told) {
      meanDb += (db * precision) / total;
      for (const { at, part } of row) mean.set(at, (mean.get(at) ?? 0) + (part * precision) / total);
    }
    for (const { db, precision, row } of told) {
      for (const { at, part } of row) right[at] += precision * part * (db - meanDb);
      addSquare(normal, all, row, precision);
    }
    addSquare(
      normal,
      all,
      Array.from(mean, ([at, part]) => ({ at, part })),
      -total,
    );
  }
  const filter = filterPrior().slice();
  const between = new Float64Array(BINS * size);
  for (let i = 0; i < BINS; i++) {
    for (let j = 0; j < BINS; j++) filter[i * BINS + j] += normal[i * all + j];
    for (let j = 0; j < size; j++) between[i * size + j] = normal[i * all + BINS + j];
  }
  cholesky(filter, BINS);
  whitenAll(filter, between, BINS, size);
  const white = whiten(filter, right.subarray(0, BINS), BINS);
  for (let i = 0; i < size; i++) {
    for (let j = 0; j < size; j++) information[i * size + j] += normal[(BINS + i) * all + BINS + j];
    pull[i] += right[BINS + i];
  }
  for (let b = 0; b < BINS; b++) {
    const row = between.subarray(b * size, (b + 1) * size);
    for (let i = 0; i < size; i++) {
      const x = row[i];
      if (x === 0) continue;
      pull[i] -= x * white[b];
      const of = information.subarray(i * size, i * size + i + 1);
      for (let j = 0; j <= i; j++) of[j] -= x * row[j];
    }
  }
  for (let i = 0; i < size; i++) for (let j = 0; j < i; j++) information[j * size + i] = information[i * size + j];
  return { information, pull };
}

/** A place among the unknowns, and how much of it. */
interface Part {
  at: number;
  part: number;
}

/** Add `weight` times a row's outer product with itself to a matrix of `size` columns. */
function addSquare(matrix: Float64Array, size: number, row: Part[], weight: number) {
  for (let a = 0; a < row.length; a++) {
    const x = weight * row[a].part;
    const from = row[a].at * size;
    for (let b = 0; b < row.length; b++) matrix[from + row[b].at] += x * row[b].part;
  }
}

/** What one harmonic is made of: filter, slope or first, and shape. */
function rowOf(k: number, midi: number, up: boolean, lowMidi: number, notes: number): Part[] {
  const bin = Math.min(BINS - 1.001, Math.max(0, Math.log2((k * midiToHz(midi)) / LOWEST_HZ) * BINS_PER_OCTAVE));
  const note = Math.min(notes - 1.001, midi - lowMidi);
  const between = (first: number, place: number, times: number): Part[] => {
    const low = Math.floor(place);
    return [
      { at: first + low, part: times * (1 - place + low) },
      { at: first + low + 1, part: times * (place - low) },
    ];
  };
  const ofVoice = k > 1 ? between(BINS + slopeAt(notes, up), note, -Math.log2(k)) : between(BINS + firstAt(notes, up), note, 1);
  return [...between(0, bin, 1), ...ofVoice, { at: BINS + shapeAt(notes) + k - 1, part: 1 }];
}

/** Inverse of a symmetric positive definite matrix, which is overwritten. */
function inverse(a: Float64Array, n: number): Float64Array {
  cholesky(a, n);
  const half = new Float64Array(n * n);
  for (let i = 0; i < n; i++) half[i * n + i] = 1;
  whitenAll(a, half, n, n);
  const out = new Float64Array(n * n);
  for (let k = 0; k < n; k++)
    for (let i = 0; i <= k; i++) {
      const x = half[k * n + i];
      for (let j = 0; j <= k; j++) out[i * n + j] += x * half[k * n + j];
    }
  return out;
}
