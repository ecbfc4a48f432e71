import { hzToMidi } from '../music/pitch';
import { cholesky, dot, multiply, unwhiten, whiten } from '../signal/linear';
import { HARMONICS, NO_HARMONIC_DB, VoiceTrack } from '../voice/types';
import { Contour } from './contour';

const LOWEST_HZ = 55;
const BINS_PER_OCTAVE = 12;
/** Frames looked at for the filter: every fourth (20 ms) is plenty for something that stands still. */
const STRIDE = 4;
/** Fewest sung frames that tell the filter. */
const LEAST_FRAMES = 40;
/** Harmonics above are not looked at, hertz. */
export const TOP_HZ = 7200;
const BINS = Math.ceil(Math.log2(TOP_HZ / LOWEST_HZ) * BINS_PER_OCTAVE) + 2;
/** Harmonics this far under the frame's strongest are taken for noise. */
const DEPTH_DB = 60;
/** Room noise in one harmonic's band lies this far under its whole level. */
const BAND_NOISE_DB = 24;
/** Weight, for each frame looked at, of the smoothness (second differences) of what the filter has beside the tract. */
const SMOOTHNESS = 0.12;
const LEVEL_BELOW = 0.4;
const SMALLNESS = 0.00004;
/** Formants tried, hertz, and F2 over F1. */
const FIRST_FORMANTS = Array.from({ length: 17 }, (_, i) => 250 * 2 ** (i / 8));
const SECOND_OVER_FIRST = [1.3, 1.5, 1.75, 2.1, 2.6, 3.2, 4, 5.5, 8];
const LOWEST_SECOND = 750;
const HIGHEST_SECOND = 2600;
/** The first formant of open vowels, between men's and women's. */
const USUAL_FIRST = 620;
/** Cost of an octave away from it, in a frame's weight. */
const FORMANT_COST = 4;
/** What makes a frame headier: units for each dB an octave of slope and each dB of first harmonic. */
export interface TimbreAxis {
  slope: number;
  first: number;
  /** Standard deviations between this singer's chest and head, where the axis is the singer's own. */
  apart?: number;
}

const PLAIN_AXIS: TimbreAxis = { slope: 1 / 4, first: 1 / 6 };
/** Frames on each side looked at for a jump of pitch of more than this many semitones a frame. */
const LEAP_REACH = 5;
const LEAP_ST = 0.5;

/** Score of each frame (NaN where nothing is sung), and the pitch that meets the first formant (2 f0 = F1 lies an octave lower). */
export interface Timbre {
  score: Float64Array;
  turnMidi: number;
}

/**
 * A timbre score for each sung frame: higher is headier (steeper spectrum, stronger first harmonic); NaN elsewhere.
 *
 * The level of harmonic k at pitch f is modelled as  filter(k f) + level(t) + slope(t) log2 k  for k >= 2, and the first
 * harmonic by its excess over that: the vowel, microphone and room act on frequency, the folds on harmonic number. A
 * glide carries every harmonic through the filter, so the two come apart, and a vowel turn (2 f0 = F1) doesn't pass for
 * a register change. Level and slope of each frame are projected out and the filter is solved for exactly (least
 * squares). A tilt of the filter can't be told from a slope of the source, so only differences of the score count.
 */
export function timbreScore(track: VoiceTrack, contour: Contour, filter: Filter | null, axis: TimbreAxis = PLAIN_AXIS): Timbre {
  const score = new Float64Array(track.frames).fill(NaN);
  if (!filter) return { score, turnMidi: Infinity };
  for (let frame = 0; frame < track.frames; frame++) {
    const parts = Number.isNaN(contour[frame]) || leaps(contour, frame) ? null : timbreParts(track, frame, filter);
    if (parts) score[frame] = along(axis, parts);
  }
  return { score, turnMidi: hzToMidi(filter.f1) };
}

/** What belongs to frequency in a take (vowel, microphone, room), from all its sung frames; null where too little is sung. */
export function takeFilter(track: VoiceTrack, contour: Contour): Filter | null {
  const equations = createEquations();
  let sung = 0;
  for (let i = 0; i < track.frames; i++) if (!Number.isNaN(contour[i]) && sung++ % STRIDE === 0) equations.add(track, i);
  if (sung < LEAST_FRAMES) return null;
  const filter = solveFilter(equations.all);
  return { ...filter, fineDb: fineFilter(track, contour, filter) };
}

/** Hertz a bin of the fine filter: a room's notches are about that wide (2.2 over the reverberation time; Kuttruff). */
const FINE_HZ = 12;
/** A bin believes its mean as far as it was visited: so many visits (a harmonic passing, frames) count half. */
const HALF_VISITS = 12;
const FINE_PASSES = 3;
const FINE_STRIDE = 2;

/**
 * What a room does beside the smooth filter: mean departure of all harmonics that visited a frequency, whichever they were
 * and whenever, from their frame's own level and slope.
 */
function fineFilter(track: VoiceTrack, contour: Contour, filter: Filter): Float64Array {
  const bins = Math.ceil(TOP_HZ / FINE_HZ) + 2;
  const fine = new Float64Array(bins);
  const ks = new Int32Array(HARMONICS);
  const off = new Float64Array(HARMONICS);
  for (let pass = 0; pass < FINE_PASSES; pass++) {
    const sums = new Float64Array(bins);
    const visits = new Float64Array(bins);
    for (let i = 0; i < track.frames; i += FINE_STRIDE) {
      if (Number.isNaN(contour[i])) continue;
      const n = usableHarmonics(track, i, ks);
      if (n < 5) continue;
      let [sx, sy, sxx, sxy] = [0, 0, 0, 0];
      for (let h = 0; h < n; h++) {
        const hz = ks[h] * track.f0[i];
        off[h] = track.harmonicsDb[i * HARMONICS + ks[h] - 1] - filterDb(filter, hz) - fineAt(fine, hz);
        const x = LOG2[ks[h]];
        sx += x;
        sy += off[h];
        sxx += x * x;
        sxy += x * off[h];
      }
      const slope = (sxy - (sx * sy) / n) / (sxx - (sx * sx) / n);
      const level = (sy - slope * sx) / n;
      for (let h = 0; h < n; h++) {
        const rest = Math.max(-MOST_FINE_DB, Math.min(MOST_FINE_DB, off[h] - level - slope * LOG2[ks[h]]));
        const at = (ks[h] * track.f0[i]) / FINE_HZ;
        const lo = Math.floor(at);
        sums[lo] += (1 - at + lo) * rest;
        visits[lo] += 1 - at + lo;
        sums[lo + 1] += (at - lo) * rest;
        visits[lo + 1] += at - lo;
      }
    }
    for (let b = 0; b < bins; b++) fine[b] += sums[b] / (visits[b] + HALF_VISITS);
  }
  return fine;
}

/** A departure further than this is a harmonic lost in a notch or in noise. */
const MOST_FINE_DB = 12;

function fineAt(fine: Float64Array, hz: number): number {
  const at = Math.min(fine.length - 1.001, hz / FINE_HZ);
  const lo = Math.floor(at);
  return fine[lo] + (at - lo) * (fine[lo + 1] - fine[lo]);
}

/** The filter at a frequency, dB. */
export function filterDb({ db, fineDb }: Filter, hz: number): number {
  const at = binOf(hz);
  const lo = Math.floor(at);
  return db[lo] + (at - lo) * (db[lo + 1] - db[lo]) + (fineDb ? fineAt(fineDb, hz) : 0);
}

const along = (axis: TimbreAxis, [slope, first]: [slope: number, first: number]) => axis.slope * slope + axis.first * first;

/** The filter is read once so many frames over so many semitones were sung, and again after so many more. */
const FIRST_READING = 200;
const LEAST_SPREAD_ST = 10;
const LATER_READINGS = 200;

/**
 * The same score while a voice is still singing: the filter is read from all that this stream has held so far, and read again
 * as more comes. NaN until enough of the voice was heard to tell the filter from the folds.
 */
export function createLiveTimbre(axis: TimbreAxis | null): (sung: Sung) => number {
  const equations = createEquations();
  const recent: number[] = [];
  let filter: Filter | null = null;
  let seen = 0;
  let read = 0;
  let lowest = Infinity;
  let highest = -Infinity;
  let last = NaN;
  return (sung) => {
    if (!(sung.f0[0] > 0)) {
      recent.length = 0;
      return NaN;
    }
    const midi = hzToMidi(sung.f0[0]);
    lowest = Math.min(lowest, midi);
    highest = Math.max(highest, midi);
    if (seen++ % STRIDE === 0) equations.add(sung, 0);
    if (seen >= FIRST_READING && highest - lowest >= LEAST_SPREAD_ST && seen - read >= (filter ? LATER_READINGS : 0)) {
      filter = solveFilter(equations.all);
      read = seen;
    }
    recent.push(midi);
    if (recent.length > LEAP_REACH + 1) recent.shift();
    // Where the pitch jumps the harmonics are those of two notes: what was known before holds on.
    const leapt = recent.some((m, i) => i > 0 && Math.abs(m - recent[i - 1]) > LEAP_ST);
    const parts = filter && !leapt ? timbreParts(sung, 0, filter) : null;
    if (parts) last = along(axis ?? PLAIN_AXIS, parts);
    return filter ? last : NaN;
  };
}

/** Where the pitch jumps inside the reader's window the harmonics are those of two notes. */
function leaps(contour: Contour, frame: number): boolean {
  for (let i = frame - LEAP_REACH; i < frame + LEAP_REACH; i++) if (Math.abs(contour[i + 1] - contour[i]) > LEAP_ST) return true;
  return false;
}

const binOf = (hz: number) => Math.min(BINS - 1.001, Math.max(0, Math.log2(hz / LOWEST_HZ) * BINS_PER_OCTAVE));
const LOG2 = Float64Array.from({ length: HARMONICS + 1 }, (_, k) => Math.log2(Math.max(1, k)));

/** Harmonics 2 and up that stand clear of the noise: their numbers into `ks`; returns how many. */
function usableHarmonics(track: Sung, frame: number, ks: Int32Array): number {
  const row = frame * HARMONICS;
  let top = -Infinity;
  for (let k = 0; k < HARMONICS; k++) top = Math.max(top, track.harmonicsDb[row + k]);
  let n = 0;
  for (let k = 2; k <= HARMONICS; k++) {
    const db = track.harmonicsDb[row + k - 1];
    if (k * track.f0[frame] < TOP_HZ && db > top - DEPTH_DB && db > NO_HARMONIC_DB && db > track.floorDb - BAND_NOISE_DB) ks[n++] = k;
  }
  return n;
}

/** The filter of a take: dB at each bin, and its first formant. */
export interface Filter {
  db: Float64Array;
  f1: number;
  /** Beside it, dB at multiples of FINE_HZ. */
  fineDb?: Float64Array;
}

function solveFilter({ matrix, right, lowestHz, used }: ReturnType<typeof createEquations>['all']): Filter {
  const stiff = matrix.slice();
  penalise(stiff, lowestHz, used);
  cholesky(stiff, BINS);
  // The filter is a tract's first two resonances plus whatever smooth rest the harmonics ask for; the pair that leaves least
  // to be asked for wins.
  let best = { left: Infinity, tract: new Float64Array(BINS) as Float64Array, rest: right, f1: 0 };
  for (const { f1, tract } of tracts()) {
    const pulled = multiply(matrix, tract, BINS);
    const rest = right.map((r, i) => r - pulled[i]);
    const white = whiten(stiff, rest, BINS);
    // Weighted squared error, less what every pair has in common.
    const left = FORMANT_COST * used * Math.log2(f1 / USUAL_FIRST) ** 2 - 2 * dot(right, tract) + dot(tract, pulled) - dot(white, white);
    if (left < best.left) best = { left, tract, rest, f1 };
  }
  const smooth = unwhiten(stiff, whiten(stiff, best.rest, BINS), BINS);
  return { db: best.tract.map((t, i) => t + smooth[i]), f1: best.f1 };
}

interface Tract {
  f1: number;
  tract: Float64Array;
}

let allTracts: Tract[] | undefined;

/** Every pair of formants tried. */
function tracts(): Tract[] {
  allTracts ??= FIRST_FORMANTS.flatMap((f1) =>
    SECOND_OVER_FIRST.map((ratio) => f1 * ratio)
      .filter((f2) => f2 >= LOWEST_SECOND && f2 <= HIGHEST_SECOND)
      .map((f2) => ({ f1, tract: tractDb(f1, f2) })),
  );
  return allTracts;
}

/** Two resonances of a tract at each bin, dB, unity at 0 Hz (Fant's all-pole form; bandwidths after Fant 1972, from memory). */
function tractDb(f1: number, f2: number): Float64Array {
  return Float64Array.from({ length: BINS }, (_, b) => {
    const hz = LOWEST_HZ * 2 ** (b / BINS_PER_OCTAVE);
    let db = 0;
    for (const [f, width] of [
      [f1, 60 + f1 / 20],
      [f2, 60 + f2 / 20],
    ])
      db -= 10 * Math.log10((1 - (hz / f) ** 2) ** 2 + ((hz * width) / f ** 2) ** 2);
    // Above it the higher resonances fill in.
    return Math.max(-30, db);
  });
}

/** What the model looks at of a frame: pitch, harmonics and the room's level. */
export type Sung = Pick<VoiceTrack, 'f0' | 'harmonicsDb' | 'floorDb'>;

/** Normal equations of the filter: what level and slope of each frame can't explain, harmonics 2 and up. */
function createEquations() {
  const matrix = new Float64Array(BINS * BINS);
  const right = new Float64Array(BINS);
  const ks = new Int32Array(HARMONICS);
  const lo = new Int32Array(HARMONICS);
  const part = new Float64Array(HARMONICS);
  const all = { matrix, right, lowestHz: Infinity, used: 1 };
  const add = (track: Sung, frame: number) => {
    all.lowestHz = Math.min(all.lowestHz, track.f0[frame]);
    const n = usableHarmonics(track, frame, ks);
    if (n < 4) return;
    all.used++;
    let mean = 0;
    for (let i = 0; i < n; i++) {
      const at = binOf(ks[i] * track.f0[frame]);
      lo[i] = Math.floor(at);
      part[i] = at - lo[i];
      mean += LOG2[ks[i]] / n;
    }
    let spread = 0;
    for (let i = 0; i < n; i++) spread += (LOG2[ks[i]] - mean) ** 2;
    // P = I - (projection on a constant and log2 k): what level and slope can't explain.
    for (let i = 0; i < n; i++) {
      let projected = 0;
      for (let j = 0; j < n; j++) {
        const p = (i === j ? 1 : 0) - 1 / n - ((LOG2[ks[i]] - mean) * (LOG2[ks[j]] - mean)) / spread;
        projected += p * track.harmonicsDb[frame * HARMONICS + ks[j] - 1];
        const a = lo[i] * BINS + lo[j];
        matrix[a] += p * (1 - part[i]) * (1 - part[j]);
        matrix[a + 1] += p * (1 - part[i]) * part[j];
        matrix[a + BINS] += p * part[i] * (1 - part[j]);
        matrix[a + BINS + 1] += p * part[i] * part[j];
      }
      right[lo[i]] += (1 - part[i]) * projected;
      right[lo[i] + 1] += part[i] * projected;
    }
  };
  return { all, add };
}

/** What the rest of the filter beside the tract pays for: bends anywhere, and any slope below twice the lowest pitch. */
function penalise(matrix: Float64Array, lowestHz: number, used: number) {
  const smoothness = SMOOTHNESS * used;
  const level = LEVEL_BELOW * used;
  for (let b = 1; b + 1 < BINS; b++) {
    const w = [1, -2, 1];
    for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) matrix[(b - 1 + i) * BINS + b - 1 + j] += smoothness * w[i] * w[j];
  }
  // Below twice the lowest pitch only first harmonics fall, which have a term of their own.
  for (let b = 0; b < binOf(2.1 * lowestHz); b++) {
    matrix[b * BINS + b] += level;
    matrix[(b + 1) * BINS + b + 1] += level;
    matrix[b * BINS + b + 1] -= level;
    matrix[(b + 1) * BINS + b] -= level;
  }
  for (let b = 0; b < BINS; b++) matrix[b * BINS + b] += SMALLNESS * used;
}

const scratch = new Int32Array(HARMONICS);

/**
 * The two parts of a frame's timbre: how steeply its harmonics 2 and up fall (dB an octave, positive is steeper) and how far
 * the first stands over their line (dB), with `filter` taken off (none for sounds that share one). Null where too few stand
 * clear of the noise.
 */
export function timbreParts(track: Sung, frame: number, filter: Filter | null = null): [slope: number, first: number] | null {
  const n = usableHarmonics(track, frame, scratch);
  if (n < 2 || track.harmonicsDb[frame * HARMONICS] === NO_HARMONIC_DB) return null;
  const plain = (k: number) => {
    const db = track.harmonicsDb[frame * HARMONICS + k - 1];
    return filter ? db - filterDb(filter, k * track.f0[frame]) : db;
  };
  let sx = 0;
  let sy = 0;
  let sxx = 0;
  let sxy = 0;
  for (let i = 0; i < n; i++) {
    const x = LOG2[scratch[i]];
    const y = plain(scratch[i]);
    sx += x;
    sy += y;
    sxx += x * x;
    sxy += x * y;
  }
  // A light pull toward a plain -12 dB per octave keeps frames with few harmonics in bounds.
  const pull = 0.2;
  const slope = (sxy - (sx * sy) / n + pull * -12) / (sxx - (sx * sx) / n + pull);
  return [-slope, plain(1) - (sy - slope * sx) / n];
}
