import { said, Said } from '../words/said';
import { asKey, keyLadder } from '../music/scale';
import { patternSpan } from './pattern';
import { Anchor, Exercise, KeyPlace, Role } from './types';

/** Places of one singer's voice, whole MIDI notes: the lowest and highest note that may be sung, the change, the speaking pitch. */
export type Anchors = Record<Anchor, number>;

/** Keys that go from one place of a voice to another walk at least this far. */
const LEAST_CLIMB_ST = 2;

/** What is sung so lightly that it may pass the change where there is no room under it. */
const PASSING: readonly Role[] = ['warm-up', 'straw', 'cool-down'];

/** Whether a pattern of this span stays in the voice in this key. */
export const inVoice = (span: { bottom: number; top: number }, key: number, anchors: Pick<Anchors, 'low' | 'high'>): boolean =>
  key + span.bottom >= anchors.low && key + span.top <= anchors.high;

/**
 * The keys (tonics) of an exercise in this voice, in the order they are sung. Keys whose notes would leave the voice
 * are left out; empty when none fits.
 *
 * @example keysFor(exerciseById('five-note-warm-up'), { low: 57, high: 79, change: 69, speaking: 58 }) // [61]
 */
export function keysFor(exercise: Exercise, anchors: Anchors): number[] {
  const span = patternSpan(exercise);
  const tonic = (place: KeyPlace) => Math.round(anchors[place.anchor]) + place.semitones - span[place.edge];
  const fits = (key: number) => inVoice(span, key, anchors);
  const { from, to, most = Infinity } = exercise.keys;
  const passes = PASSING.includes(exercise.role);
  const first = tonic(from);
  // From one place to a higher one means upward, also in a voice where they lie close together: there what warms passes the second,
  // and work has no key.
  const close = from.anchor !== to.anchor && tonic(to) < first;
  if (close && !passes) return [];
  const last = close ? first + LEAST_CLIMB_ST : tonic(to);
  const keys = keyLadder(first, last).filter(fits);
  return keys.slice(Math.max(0, keys.length - most));
}

/** Keys in words: "from A3 up to D4". */
export function notesInWords(keys: readonly number[]): Said {
  const first = keys[0];
  const last = keys[keys.length - 1];
  const of = { first: asKey(first), last: asKey(last) };
  if (first === last) return said('{first}', of);
  return last > first ? said('{first} up to {last}', of) : said('{first} down to {last}', of);
}
