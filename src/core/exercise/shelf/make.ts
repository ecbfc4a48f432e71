import { parsePattern } from '../pattern';
import type { Exercise, KeyPlace, Step } from '../types';

/** A pattern in even notes of `beats`, the last held for `last` crotchets unless it says otherwise. */
export function pattern(text: string, beats: number, last = 2 * beats): Step[] {
  const steps = parsePattern(text, beats);
  const saysItself = /:[\d.]+$/.test(text);
  return steps.map((s, i) => (i === steps.length - 1 && !saysItself ? { ...s, beats: last } : s));
}

export const top = (anchor: KeyPlace['anchor'], semitones: number): KeyPlace => ({ edge: 'top', anchor, semitones });
export const bottom = (anchor: KeyPlace['anchor'], semitones: number): KeyPlace => ({ edge: 'bottom', anchor, semitones });

type Usual = 'breathBeats' | 'loudness' | 'avoid' | 'schools' | 'after' | 'needs' | 'role' | 'suits' | 'caution';

export const EASY = 'Only as loud as it stays connected. Stop if it scratches.';
export const OWN_STRAW = 'Your own clean straw. Stop if you get dizzy.';

/** An exercise of the shelf, with what most have in common filled in. */
export const exercise = (given: Omit<Exercise, Usual> & Partial<Pick<Exercise, Usual>>): Exercise => ({
  role: 'work',
  breathBeats: 2,
  loudness: 'even',
  suits: [],
  avoid: [],
  schools: [],
  after: [],
  needs: [],
  ...given,
  caution: withEasy(given),
});

/** What an exercise warns of beside what always holds: whatever isn't soft may scratch. */
const withEasy = ({ caution, loudness }: { caution?: string; loudness?: Exercise['loudness'] }): string =>
  !caution ? EASY : loudness === 'soft' || caution.includes(EASY) ? caution : `${caution} ${EASY}`;
