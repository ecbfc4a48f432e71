import { Check, Hearing } from './hearing';
import { leapt, leaptOnce } from './leaps';
import { faded, jumpedOut, notSofter } from './level';
import { missedTheEnd, outOfTune, unsteady, wrongNote } from './pitch';
import { changedAtOnce, chestCarried, notHeard } from './register';
import { notSung, pitchLost, stopped } from './sounding';
import type { KeyHeard, KeyJudged } from './types';

/** Weightiest first: what a singer should hear about a key is the first of these that it shows. */
export const CHECKS: readonly Check[] = [
  notSung,
  stopped,
  leapt,
  wrongNote,
  outOfTune,
  missedTheEnd,
  unsteady,
  faded,
  changedAtOnce,
  jumpedOut,
  notSofter,
  chestCarried,
  leaptOnce,
  pitchLost,
  notHeard,
];

export function judgeKey(key: KeyHeard, hearing: Hearing): KeyJudged {
  const found = CHECKS.filter((c) => c.applies?.(hearing) ?? true).flatMap((check) => {
    const at = check.look(key, hearing);
    return at ? [{ check, because: { fault: check.fault, ...at } }] : [];
  });
  const first = found[0];
  return {
    tonicMidi: key.tonicMidi,
    verdict: first?.check.verdict ?? 'yes',
    because: first?.because ?? null,
    notes: key.notes.map((n) => {
      const own = found.find(({ because }) => because.midi === n.midi);
      return {
        ...n,
        verdict: own?.check.verdict ?? (first?.check.verdict === 'not told' ? 'not told' : 'yes'),
        because: own?.because ?? null,
      };
    }),
  };
}
