import { solveSymmetric } from '../signal/linear';
import { HARMONICS, NO_HARMONIC_DB, VoiceTrack } from '../voice/types';
import { Contour } from './contour';

const LOWEST_HZ = 55;
const BINS_PER_OCTAVE = 12;
const BINS = Math.ceil(Math.log2(8000 / LOWEST_HZ) * BINS_PER_OCTAVE) + 2;
/** Frames looked at for the filter: every third (15 ms) is plenty for something that stands still. */
const STRIDE = 3;
const TOP_HZ = 4500;
/** Harmonics this far under the frame's strongest are taken for noise. */
const DEPTH_DB = 60;
/** Room noise in one harmonic's band lies this far under its whole level. */
const BAND_NOISE_DB = 24;
/** Weight of the filter's smoothness (second differences), in frames. */
const SMOOTHNESS = 6;
const LEVEL_BELOW = 200;
/** dB per octave of slope, and dB of first harmonic, that count as one unit of "headier". */
const SLOPE_UNIT = 4;
const FIRST_UNIT = 8;

/**
 * A timbre score for each sung frame: higher is headier (steeper spectrum, stronger first harmonic); NaN elsewhere.
 *
 * The level of harmonic k at pitch f is modelled as  filter(k f) + level(t) + slope(t) log2 k  for k >= 2, and the first
 * harmonic by its excess over that: the vowel, microphone and room act on frequency, the folds on harmonic number. A
 * glide carries every harmonic through the filter, so the two come apart, and a vowel turn (2 f0 = F1) doesn't pass for
 * a register change. Level and slope of each frame are projected out and the filter is solved for exactly (least
 * squares). A tilt of the filter can't be told from a slope of the source, so only differences of the score count.
 */
export function timbreScore(track: VoiceTrack, contour: Contour): Float64Array {
  const score = new Float64Array(track.frames).fill(NaN);
  const frames: number[] = [];
  for (let i = 0; i < track.frames; i++) if (!Number.isNaN(contour[i])) frames.push(i);
  if (frames.length < 40) return score;
  const filter = solveFilter(track, frames);
  for (const frame of frames) score[frame] = scoreFrame(track, frame, filter);
  return score;
}

const binOf = (hz: number) => Math.min(BINS - 1.001, Math.max(0, Math.log2(hz / LOWEST_HZ) * BINS_PER_OCTAVE));
const LOG2 = Float64Array.from({ length: HARMONICS + 1 }, (_, k) => Math.log2(Math.max(1, k)));

/** Harmonics 2 and up that stand clear of the noise: their numbers into `ks`; returns how many. */
function usableHarmonics(track: VoiceTrack, frame: number, ks: Int32Array): number {
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

function solveFilter(track: VoiceTrack, frames: number[]): Float64Array {
  const matrix = new Float64Array(BINS * BINS);
  const right = new Float64Array(BINS);
  const ks = new Int32Array(HARMONICS);
  const lo = new Int32Array(HARMONICS);
  const part = new Float64Array(HARMONICS);
  for (let f = 0; f < frames.length; f += STRIDE) {
    const frame = frames[f];
    const n = usableHarmonics(track, frame, ks);
    if (n < 4) continue;
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
  }
  for (let b = 1; b + 1 < BINS; b++) {
    const w = [1, -2, 1];
    for (let i = 0; i < 3; i++) for (let j = 0; j < 3; j++) matrix[(b - 1 + i) * BINS + b - 1 + j] += SMOOTHNESS * w[i] * w[j];
  }
  // Below twice the lowest pitch only first harmonics fall, which have a term of their own: there the filter is taken to
  // be level, as a vocal tract is well under its first formant.
  let lowest = Infinity;
  for (const frame of frames) lowest = Math.min(lowest, track.f0[frame]);
  for (let b = 0; b < binOf(2.1 * lowest); b++) {
    matrix[b * BINS + b] += LEVEL_BELOW;
    matrix[(b + 1) * BINS + b + 1] += LEVEL_BELOW;
    matrix[b * BINS + b + 1] -= LEVEL_BELOW;
    matrix[(b + 1) * BINS + b] -= LEVEL_BELOW;
  }
  for (let b = 0; b < BINS; b++) matrix[b * BINS + b] += 0.02;
  return solveSymmetric(matrix, right, BINS);
}

const scratch = new Int32Array(HARMONICS);

function scoreFrame(track: VoiceTrack, frame: number, filter: Float64Array): number {
  const n = usableHarmonics(track, frame, scratch);
  if (n < 2) return NaN;
  const plain = (k: number) => {
    const at = binOf(k * track.f0[frame]);
    const lo = Math.floor(at);
    return track.harmonicsDb[frame * HARMONICS + k - 1] - filter[lo] - (at - lo) * (filter[lo + 1] - filter[lo]);
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
  const pull = 0.4;
  const slope = (sxy - (sx * sy) / n + pull * -12) / (sxx - (sx * sx) / n + pull);
  const level = (sy - slope * sx) / n;
  return -slope / SLOPE_UNIT + (plain(1) - level) / FIRST_UNIT;
}
