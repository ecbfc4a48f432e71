import { fitWeightedLine, median } from '../signal/stats';
import { HARMONICS, NO_HARMONIC_DB, VoiceTrack } from '../voice/types';
import { Contour } from './contour';
import { Filter, filterDb } from './timbre';

/** Frames before and after a moment that are compared, beginning so many frames away from it (25 to 115 ms). */
const AWAY = 5;
const SIDE = 28;
/** A brief look: 40 ms on each side. */
const BRIEF = 8;
/** A dip is looked for in so many frames on each side of a moment, against frames this far away on both sides (40 to 80 ms). */
const CORE = 3;
const [FLANK_FROM, FLANK_TO] = [8, 16];
/** Fewest frames of a side, and fewest harmonics, that tell anything. */
const LEAST_SIDE = 5;
const LEAST_HARMONICS = 2;
/** From the eighth harmonic up a steeper source falls no further (the return phase of Fant's LF model; Fant 1995). */
const MOST_OCTAVES = 3;
/** Outermost share of harmonics left out on each end of a mean, at least one: those that a room's or a tract's notches have caught. */
const TRIM = 0.2;

/** What happens to the whole series of harmonics at a moment, filter taken off. Positive slope and noise are headier. */
export interface SourceStep {
  /** How much steeper the harmonics fall after than before, dB an octave. */
  slope: number;
  /** How deep a hole all harmonics share, dB. */
  dipDb: number;
  /** How much more noise after than before, dB. */
  noiseDb: number;
  /** How much louder after than before, dB. */
  levelDb: number;
}

/** The harmonics of a take with its filter (vowel, room, microphone) taken off, ready to be compared. */
export interface Source {
  /** What happens around a frame; null where too little is sung on either side. */
  stepAt(frame: number): SourceStep | null;
  /** The same from 40 ms on each side: of a colour that turns little by little hardly half is seen in so short a time. */
  briefStepAt(frame: number): SourceStep | null;
}

/** @param filter what belongs to frequency in this take, as `takeFilter` finds it */
export function sourceOf(track: VoiceTrack, contour: Contour, filter: Filter): Source {
  const { frames } = track;
  const stride = frames + 1;
  // Running sums, so that a mean over any stretch costs two look-ups.
  const sums = new Float64Array(HARMONICS * stride);
  const counts = new Int32Array(HARMONICS * stride);
  const noise = new Float64Array(stride);
  const noisy = new Int32Array(stride);
  for (let i = 0; i < frames; i++) {
    const sung = !Number.isNaN(contour[i]);
    const periodic = Math.min(0.999, track.clarity[i]);
    const tells = sung && periodic > 0;
    noise[i + 1] = noise[i] + (tells ? 10 * Math.log10((1 - periodic) / periodic) : 0);
    noisy[i + 1] = noisy[i] + (tells ? 1 : 0);
    for (let k = 0; k < HARMONICS; k++) {
      const db = sung ? track.harmonicsDb[i * HARMONICS + k] : NO_HARMONIC_DB;
      const there = db > NO_HARMONIC_DB && db > track.floorDb - 24;
      const at = k * stride + i;
      sums[at + 1] = sums[at] + (there ? db - filterDb(filter, (k + 1) * track.f0[i]) : 0);
      counts[at + 1] = counts[at] + (there ? 1 : 0);
    }
  }
  const octaves = new Float64Array(HARMONICS);
  const changes = new Float64Array(HARMONICS);
  const holes = new Float64Array(HARMONICS);
  /** Mean of harmonic k over a stretch of frames; NaN where fewer than `least` show it. */
  const mean = (k: number, from: number, to: number, least: number) => {
    const n = counts[k * stride + to] - counts[k * stride + from];
    return n < least ? NaN : (sums[k * stride + to] - sums[k * stride + from]) / n;
  };
  const noiseOver = (from: number, to: number) => (noise[to] - noise[from]) / Math.max(1, noisy[to] - noisy[from]);

  function stepAt(frame: number, side: number): SourceStep | null {
    if (frame - AWAY - SIDE < 0 || frame + AWAY + SIDE >= frames) return null;
    let changed = 0;
    let holed = 0;
    for (let k = 0; k < HARMONICS; k++) {
      const before = mean(k, frame - AWAY - side + 1, frame - AWAY + 1, LEAST_SIDE);
      const after = mean(k, frame + AWAY, frame + AWAY + side, LEAST_SIDE);
      if (Number.isNaN(before + after)) continue;
      octaves[changed] = OCTAVES[k];
      changes[changed++] = after - before;
      const core = mean(k, frame - CORE, frame + CORE + 1, 1);
      const flanks = 0.5 * (mean(k, frame - FLANK_TO + 1, frame - FLANK_FROM + 1, 1) + mean(k, frame + FLANK_FROM, frame + FLANK_TO, 1));
      if (!Number.isNaN(core + flanks)) holes[holed++] = flanks - core;
    }
    if (changed < LEAST_HARMONICS) return null;
    return {
      slope: -slopeOver(octaves.subarray(0, changed), changes.subarray(0, changed)),
      dipDb: holed < LEAST_HARMONICS ? 0 : trimmedMean(holes.subarray(0, holed)),
      noiseDb: noiseOver(frame + AWAY, frame + AWAY + side) - noiseOver(frame - AWAY - side + 1, frame - AWAY + 1),
      levelDb: median(changes.subarray(0, changed)),
    };
  }
  return { stepAt: (frame) => stepAt(frame, SIDE), briefStepAt: (frame) => stepAt(frame, BRIEF) };
}

/** Octaves of each harmonic over the first, as far as they count. */
const OCTAVES = Float64Array.from({ length: HARMONICS }, (_, k) => Math.min(MOST_OCTAVES, Math.log2(k + 1)));
const residue = new Float64Array(HARMONICS);
const weights = new Float64Array(HARMONICS);

/** Slope of a line through points, points far off it counting less (one step of Tukey's idea with Huber's weights). */
function slopeOver(x: Float64Array, y: Float64Array): number {
  let slope = 0;
  let intercept = 0;
  let scale = Infinity;
  for (let pass = 0; pass < 2; pass++) {
    for (let i = 0; i < x.length; i++) {
      const off = Math.abs(y[i] - intercept - slope * x[i]);
      weights[i] = pass === 0 || off < scale ? 1 : scale / off;
    }
    const line = fitWeightedLine(x, y, weights);
    if (line.spread < 1e-9) return 0;
    ({ slope, intercept } = line);
    for (let i = 0; i < x.length; i++) residue[i] = Math.abs(y[i] - intercept - slope * x[i]);
    scale = 1.5 * median(residue.subarray(0, x.length)) + 1e-6;
  }
  return slope;
}

function trimmedMean(values: Float64Array): number {
  values.sort();
  // Two must both have it.
  if (values.length === 2) return values[0];
  const cut = Math.max(1, Math.floor(TRIM * values.length));
  let sum = 0;
  for (let i = cut; i < values.length - cut; i++) sum += values[i];
  return sum / (values.length - 2 * cut);
}
