import { stepSemitones } from './pattern';
import type { Exercise } from './types';

/** Toward what an open vowel leans on the way up: “ah” a little toward “oh”, “eh” toward closed; closed ones need nearly nothing (common practice, no source). */
const LEANS: readonly { of: RegExp; plain: string; toward: string }[] = [
  { of: /(ah|la|ya)$/, plain: 'ah', toward: 'oh' },
  { of: /eh$/, plain: 'eh', toward: 'ay' },
];
/** It begins so far under the change (common practice, no source). */
const UNDER_CHANGE_ST = 2;

/** A note from which a vowel leans, or is plain again. */
export interface Lean {
  /** Index of the step. */
  step: number;
  /** Whether it leans from here, and toward what; or else the plain vowel again. */
  leans: boolean;
  vowel: string;
}

/**
 * Where a vowel begins to lean in one key, and where it is plain again: from two semitones under the change up. None on closed
 * vowels, and none in what is belted or spoken.
 *
 * @example leansIn(fiveNotes, 'ah', 60, 67) // [{ step: 3, leans: true, vowel: 'oh' }, { step: 6, leans: false, vowel: 'ah' }]
 */
export function leansIn({ steps, weight }: Pick<Exercise, 'steps' | 'weight'>, sound: string, tonic: number, changeMidi: number): Lean[] {
  const open = LEANS.find(({ of }) => of.test(sound));
  if (!open || weight > 0) return [];
  const out: Lean[] = [];
  let leaning = false;
  steps.forEach((s, step) => {
    const high = tonic + stepSemitones(s) >= changeMidi - UNDER_CHANGE_ST;
    if (high !== leaning) out.push({ step, leans: high, vowel: high ? open.toward : open.plain });
    leaning = high;
  });
  return out;
}
