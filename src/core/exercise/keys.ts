import { noteName } from '../music/pitch';
import { keyLadder, tonicName } from '../music/scale';
import { patternSpan } from './pattern';
import { Anchor, Exercise, KeyPlace } from './types';

/** Places of one singer's voice, whole MIDI notes: lowest and highest usable note and the main change. */
export type Anchors = Record<Anchor, number>;

/** Work at the top stops this many semitones short of the extreme (common practice, trade). */
export const TOP_RESERVE_ST = 2;

/** A warm-up climbs at least this far. */
const LEAST_CLIMB_ST = 2;

/** Whether a pattern of this span stays in the voice in this key, with the reserve at the top. */
export const inVoice = (span: { bottom: number; top: number }, key: number, anchors: Anchors): boolean =>
  key + span.bottom >= anchors.low && key + span.top <= anchors.high - TOP_RESERVE_ST;

/**
 * The keys (tonics) of an exercise in this voice, in the order they are sung. Keys whose notes would leave the voice
 * (below the low limit or within two semitones of the top) are left out; empty when none fits.
 */
export function keysFor(exercise: Exercise, anchors: Anchors): number[] {
  const span = patternSpan(exercise);
  const tonic = (place: KeyPlace) => Math.round(anchors[place.anchor]) + place.semitones - span[place.edge];
  const fits = (key: number) => inVoice(span, key, anchors);
  const { from, to, most = Infinity } = exercise.keys;
  // From the low limit toward the change means upward, also in a voice where they lie close together.
  const climbs = from.anchor !== to.anchor;
  const last = climbs ? Math.max(tonic(to), anchors.low - span.bottom + LEAST_CLIMB_ST) : tonic(to);
  const first = climbs ? Math.min(tonic(from), last - LEAST_CLIMB_ST) : tonic(from);
  const keys = keyLadder(first, last).filter(fits);
  return keys.slice(Math.max(0, keys.length - most));
}

/** Keys in words: "from A3 up to D4". */
export function notesInWords(keys: readonly number[]): string {
  const name = (key: number) => noteName(key, tonicName(key).includes('b'));
  const first = keys[0];
  const last = keys[keys.length - 1];
  return first === last ? name(first) : `${name(first)} ${last > first ? 'up' : 'down'} to ${name(last)}`;
}
