import { keyLadder, degreeToSemitones } from '../music/scale';
import { Anchor, Exercise, KeyPlace } from './types';

/** Places of one singer's voice, whole MIDI notes: lowest and highest usable note and the main change. */
export type Anchors = Record<Anchor, number>;

/** Work at the top stops this many semitones short of the extreme (common practice, trade). */
export const TOP_RESERVE_ST = 2;

/** A warm-up climbs at least this far. */
const LEAST_CLIMB_ST = 2;

/** Lowest and highest note of a pattern above its tonic, semitones. */
export function patternSpan(exercise: Exercise): { bottom: number; top: number } {
  const semitones = exercise.steps.map((s) => degreeToSemitones(s.degree));
  return { bottom: Math.min(...semitones), top: Math.max(...semitones) };
}

/**
 * The keys (tonics) of an exercise in this voice, in the order they are sung. Keys whose notes would leave the voice
 * (below the low limit or within two semitones of the top) are left out; empty when none fits.
 */
export function keysFor(exercise: Exercise, anchors: Anchors): number[] {
  const span = patternSpan(exercise);
  const tonic = (place: KeyPlace) => Math.round(anchors[place.anchor]) + place.semitones - span[place.edge];
  const fits = (key: number) => key + span.bottom >= anchors.low && key + span.top <= anchors.high - TOP_RESERVE_ST;
  const { from, to, most = Infinity } = exercise.keys;
  const last = tonic(to);
  // From the low limit toward the change means upward, also in a voice where they lie close together.
  const first = from.anchor === to.anchor ? tonic(from) : Math.min(tonic(from), last - LEAST_CLIMB_ST);
  const keys = keyLadder(first, last).filter(fits);
  return keys.slice(Math.max(0, keys.length - most));
}
