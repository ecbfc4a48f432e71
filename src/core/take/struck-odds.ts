import { fitLine, quantile } from '../signal/stats';
import { HARMONICS, HOP_S, NO_HARMONIC_DB, VoiceTrack } from '../voice/types';
import { Contour, framesIn, smoothMean } from './contour';

/**
 * What tells a struck tone from a sung one that dies away, and how much (log odds; logistic regression on 245 tones of two sampled pianos
 * against 450 beginnings of another maker's voices that fall as fast, 262 of them held notes faded by 5 to 40 dB a second, all in drawn
 * rooms; left out in fifths, 228 of the first and 25 of the second are over -0.5). A string's pitch does not wander, its attack is
 * at once, its partials fall each at a speed of their own, and it never swells; the longer it sounds so the surer.
 */
const ODDS = { none: 4.79, decay: -0.099, drift: -1.3, wander: -2.76, spread: 1.77, attack: -52.6, rise: -1.01, seconds: 3.93 };
/** A shorter tone doesn't tell. */
const SHORTEST_LOOK_S = 0.08;
/** Strings that die away faster, dB a second, are no surer. */
const FASTEST_DECAY = -40;
/** What doesn't die away so fast, dB a second, is no string, however still (a drone, a held note). */
const SLOWEST_DECAY = -5;
/** The attack is from 10 dB under the peak, and counts in these bounds. */
const UNDER_PEAK_DB = 10;
const LONGEST_ATTACK_S = 0.15;
const [FAST_ATTACK_S, SLOW_ATTACK_S] = [0.01, 0.1];
/** Noise shakes a pitch from frame to frame, a voice more slowly: means over 65 ms. */
const WANDER_FRAMES = 13;

/**
 * Log odds that the tone whose level peaks at frame `peak` and which sounds by itself until `to` was struck and not sung;
 * -Infinity where it is too short to tell, or doesn't die away.
 */
export function oddsOfString(track: VoiceTrack, contour: Contour, peak: number, to: number): number {
  const level = track.levelDb;
  const times: number[] = [];
  const levels: number[] = [];
  const cents: number[] = [];
  for (let i = peak + framesIn(0.015); i < to; i++) {
    if (Number.isNaN(contour[i])) continue;
    times.push(i * HOP_S);
    levels.push(level[i]);
    cents.push(contour[i] * 100);
  }
  if (times.length < framesIn(SHORTEST_LOOK_S)) return -Infinity;
  const decay = Math.max(FASTEST_DECAY, fitLine(times, levels).slope);
  if (decay > SLOWEST_DECAY) return -Infinity;
  return (
    ODDS.none +
    ODDS.decay * decay +
    ODDS.drift * Math.log(Math.abs(fitLine(times, cents).slope) + 5) +
    ODDS.wander * Math.log(wander(times, cents) + 0.5) +
    ODDS.spread * Math.log(spreadOfPartials(track, contour, peak + framesIn(0.03), to) + 2) +
    ODDS.attack * Math.min(SLOW_ATTACK_S, Math.max(FAST_ATTACK_S, attackSeconds(level, peak))) +
    ODDS.rise * Math.log(largestRise(level, peak, to) + 0.5) +
    ODDS.seconds * Math.log(times.length * HOP_S)
  );
}

/** How far a pitch wanders off its line, cents: within so much two times in three. */
function wander(times: number[], cents: number[]): number {
  const half = WANDER_FRAMES >> 1;
  const smooth = smoothMean(Float64Array.from(cents), WANDER_FRAMES).slice(half, -half);
  if (smooth.length < 5) return 0;
  const at = times.slice(half, -half);
  const line = fitLine(at, smooth);
  return quantile(
    smooth.map((c, i) => Math.abs(c - line.intercept - line.slope * at[i])),
    0.68,
  );
}

const PARTIALS = 10;
/** A partial counts when it is there for so much of the tone. */
const PARTIAL_SHARE = 0.8;
const FEWEST_TIMES = 10;
/** Fewer don't tell how they differ: then it is taken to lie between voices (3 to 5 dB a second) and strings (10 to 25). */
const FEWEST_PARTIALS = 3;
const UNKNOWN_SPREAD = 6;

/** How differently the partials die away, dB a second: seven in ten lie within so much. */
function spreadOfPartials(track: VoiceTrack, contour: Contour, from: number, to: number): number {
  const slopes: number[] = [];
  for (let k = 0; k < PARTIALS; k++) {
    const times: number[] = [];
    const levels: number[] = [];
    for (let i = from; i < to; i++) {
      const db = track.harmonicsDb[i * HARMONICS + k];
      if (Number.isNaN(contour[i]) || db <= NO_HARMONIC_DB) continue;
      times.push(i * HOP_S);
      levels.push(db);
    }
    if (times.length > FEWEST_TIMES && times.length > PARTIAL_SHARE * (to - from)) slopes.push(fitLine(times, levels).slope);
  }
  return slopes.length < FEWEST_PARTIALS ? UNKNOWN_SPREAD : quantile(slopes, 0.85) - quantile(slopes, 0.15);
}

/** Seconds in which a level rose to its peak. */
function attackSeconds(level: Float32Array, peak: number): number {
  let from = peak;
  while (from > 0 && peak - from < framesIn(LONGEST_ATTACK_S) && level[from] > level[peak] - UNDER_PEAK_DB) from--;
  return (peak - from) * HOP_S;
}

/** How far a tone's level (over 50 ms) rises again, dB. */
function largestRise(level: Float32Array, from: number, to: number): number {
  const over = framesIn(0.05);
  let sum = 0;
  let least = Infinity;
  let rise = 0;
  for (let i = from; i < to; i++) {
    sum += level[i] - (i - from < over ? 0 : level[i - over]);
    if (i - from < over - 1) continue;
    least = Math.min(least, sum / over);
    rise = Math.max(rise, sum / over - least);
  }
  return rise;
}
