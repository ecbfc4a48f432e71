import { fitLine, median } from '../signal/stats';
import { HOP_S } from './types';

/** What a room adds to a voice: how long it rings (to -60 dB), and how loud the reflected sound is beside the direct. */
export interface RoomSound {
  reverbS: number;
  /** Power of the reflected over that of the direct sound while a tone stands. */
  share: number;
}

/** A voice may have stopped where it first lies this far under what it was in the last 0.2 s. */
const STOPPED_DB = 5;
const BEFORE_FRAMES = 40;
/** Its own release is over after this (common practice: a soft offset takes under 0.1 s). */
const RELEASE_FRAMES = 20;
/** From there its decay is read until it comes this near the floor, or something rises out of it by so much. */
const OVER_FLOOR_DB = 5;
const RISE_DB = 6;
const FEWEST_FRAMES = 10;
/** A decay falls by this much at least, along a line with this scatter at most. */
const LEAST_FALL_DB = 6;

const MOST_SCATTER_DB = 2.5;
/** One that stands alone has a knee: the voice itself stops so much faster than the room. Else it may be a voice fading. */
const KNEE = 1.8;
/** Rooms outside this are not rooms: a voice fading, or a device letting go. */
const SHORTEST_S = 0.1;
const LONGEST_S = 2;
/** Of all that sounds, reflections make up this much at most: more is a voice fading. */
const MOST_PART = 0.75;

/**
 * Estimate the room from the decays of a take: where the voice has stopped, what is heard falls on a straight line in dB
 * (Polack 1988; Schroeder 1965), whose slope is the reverberation time and whose height at the stop is the reflected part.
 * The median over all decays; null where none was heard.
 * @param levelDb level every 5 ms
 */
export function estimateRoom(levelDb: Float32Array, floorDb: number): RoomSound | null {
  const times: number[] = [];
  const shares: number[] = [];
  let knees = 0;
  const floor = 10 ** (floorDb / 10);
  for (let i = BEFORE_FRAMES; i < levelDb.length; i++) {
    let loud = -Infinity;
    for (let k = 1; k <= BEFORE_FRAMES; k++) loud = Math.max(loud, levelDb[i - k]);
    if (levelDb[i] >= loud - STOPPED_DB || levelDb[i - 1] < loud - STOPPED_DB) continue;
    const seconds: number[] = [];
    const levels: number[] = [];
    let least = Infinity;
    for (let k = i; k < levelDb.length && levelDb[k] > floorDb + OVER_FLOOR_DB && levelDb[k] < least + RISE_DB; k++) {
      least = Math.min(least, levelDb[k]);
      if (k < i + RELEASE_FRAMES) continue;
      seconds.push((k - i) * HOP_S);
      levels.push(10 * Math.log10(Math.max(1e-12, 10 ** (levelDb[k] / 10) - floor)));
    }
    if (levels.length < FEWEST_FRAMES) continue;
    const { slope, intercept } = fitLine(seconds, levels);
    const scatter = Math.sqrt(levels.reduce((s, l, n) => s + (l - intercept - slope * seconds[n]) ** 2, 0) / levels.length);
    const reverbS = -60 / slope;
    const fall = -slope * seconds.length * HOP_S;
    if (fall < LEAST_FALL_DB || scatter > MOST_SCATTER_DB) continue;
    if (!(reverbS > SHORTEST_S && reverbS < LONGEST_S)) continue;
    const part = 10 ** ((intercept - loud + 1) / 10);
    if (part > MOST_PART) continue;
    if (loud - STOPPED_DB / 2 - intercept - slope * RELEASE_FRAMES * HOP_S > KNEE * -slope * RELEASE_FRAMES * HOP_S) knees++;
    times.push(reverbS);
    shares.push(part / (1 - part));
    i += seconds.length;
  }
  return times.length > 1 || knees > 0 ? { reverbS: median(times), share: median(shares) } : null;
}

/** Decay of power in `hopS` seconds. */
export const decayOf = ({ reverbS }: RoomSound, hopS: number): number => 10 ** ((-6 * hopS) / reverbS);
