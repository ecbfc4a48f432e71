'use client';
import type { Planning } from '../../core/plan/check';
import { nextRung, propose, Rung } from '../../core/plan/progress';
import type { PlanItem } from '../../core/plan/types';
import { practisedOf } from '../../core/practice/log';
import type { Entry } from '../../core/practice/types';
import { STRAND_WORDS } from '../kit/words-of-work';
import { STEP_WORDS } from '../progress/words';
import { dayKey } from './days';

const rungInWords = (rung: Rung): string =>
  rung.kind === 'sound'
    ? `sing it on “${rung.sound}”`
    : rung.kind === 'tempo'
      ? `♩ = ${rung.tempo}`
      : rung.kind === 'grade'
        ? `${STRAND_WORDS[rung.strand].toLowerCase()}: grade ${rung.grade}`
        : '';

/** What practice at home says of each item: go on, stay, step back or stop; one rung at a time, and only with the coach's word. */
export function Proposals({
  items,
  practised,
  p,
  onRung,
}: {
  items: PlanItem[];
  practised: Entry[];
  p: Planning;
  onRung: (item: PlanItem, rung: Rung) => void;
}) {
  const told = items.flatMap((item) => {
    const exercise = p.find(item.exerciseId);
    const of = practisedOf(practised, item.exerciseId);
    if (!exercise || of.length === 0) return [];
    const proposal = propose(of, dayKey(new Date()));
    const rung: Rung =
      proposal.step === 'advance'
        ? nextRung(item, exercise, 1)
        : proposal.step === 'step-back' || proposal.step === 'return'
          ? nextRung(item, exercise, -1)
          : { kind: 'none' };
    return [{ item, exercise, proposal, rung }];
  });
  if (told.length === 0) return <p>Nothing of this week was practised with Wendel yet.</p>;
  return (
    <ul className="flex flex-col gap-2">
      {told.map(({ item, exercise, proposal, rung }) => (
        <li key={item.exerciseId}>
          <b>{exercise.name}:</b> {STEP_WORDS[proposal.step]}. <span className="text-soft">{proposal.because}</span>
          {rung.kind !== 'none' && (
            <button className="button-small mt-1 min-h-11" onClick={() => onRung(item, rung)}>
              Yes: {rungInWords(rung)}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
