import { Patterned, renderKey } from './render';

/** Where a follow-along stands among its keys and how it goes on from there, as a pianist does who listens to the singer. */
export interface Walk {
  /** Tonics in the order they are walked, MIDI. */
  keys: readonly number[];
  /** The key that sounds, an index. */
  at: number;
  /** Up the keys, or back down. */
  by: 1 | -1;
  /** The same key again: once more, or until it is said otherwise. */
  stays: 'once' | 'on' | null;
}

/** At the first of some keys. */
export const walkOf = (keys: readonly number[]): Walk => ({ keys, at: 0, by: 1, stays: null });

/** The key after this one: up the keys, each end once, back down and up again; the same one where it stays. */
export function goneOn({ keys, at, by, stays }: Walk): Walk {
  if (stays || keys.length < 2) return { keys, at, by, stays: stays === 'once' ? null : stays };
  const turned = at + by in keys ? by : by === 1 ? -1 : 1;
  return { keys, at: at + turned, by: turned, stays };
}

/** At a key that was chosen, and on from there the way it went. */
export const goneTo = (walk: Walk, at: number): Walk => ({ ...walk, at, stays: null });

/** Whether another key of so many seconds comes nearer to an exercise's minutes than ending now does. */
export const hasTimeFor = (keyS: number, playedS: number, minutes: number): boolean => playedS + keyS / 2 <= minutes * 60;

/**
 * The keys of one time through an exercise when nobody asks for anything else: up, back down and up again until its minutes are
 * over, ended at the key that comes nearest to them. One key at least; none where there are none.
 *
 * @example roundOf(fiveNotes, [60, 62, 64], 100, 0.5) // [60, 62, 64, 62]: four keys of 7.2 s
 */
export function roundOf(exercise: Patterned, keys: readonly number[], tempo: number, minutes: number): number[] {
  if (keys.length === 0) return [];
  const keyS = renderKey(exercise, keys[0], tempo).totalS;
  const round = [keys[0]];
  for (let walk = goneOn(walkOf(keys)); hasTimeFor(keyS, round.length * keyS, minutes); walk = goneOn(walk)) round.push(keys[walk.at]);
  return round;
}
