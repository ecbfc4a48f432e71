'use client';
import { said, Said } from '../../core/words/said';
import type { Planning } from '../../core/plan/check';
import { nextRung, propose, Rung } from '../../core/plan/progress';
import type { PlanItem } from '../../core/plan/types';
import { practisedOf } from '../../core/practice/log';
import type { Entry } from '../../core/practice/types';
import { STRAND_WORDS } from '../kit/words-of-work';
import { STEP_WORDS } from '../progress/words';
import { dayKey } from './days';
import { useLanguage } from '../language/language';

const rungInWords = (rung: Rung): Said =>
  rung.kind === 'sound'
    ? said('sing it on “{sound}”', { sound: rung.sound })
    : rung.kind === 'tempo'
      ? `♩ = ${rung.tempo}`
      : rung.kind === 'grade'
        ? said('{strand}, grade {grade}', { strand: STRAND_WORDS[rung.strand], grade: rung.grade })
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
  const { t } = useLanguage();
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
  if (told.length === 0) return <p>{t('Nothing of this week was practised with Wendel yet.')}</p>;
  return (
    <ul className="flex flex-col gap-2">
      {told.map(({ item, exercise, proposal, rung }) => (
        <li key={item.exerciseId}>
          <b>{t(exercise.name)}:</b> {t(STEP_WORDS[proposal.step])}. <span className="text-soft">{t(proposal.because)}</span>
          {rung.kind !== 'none' && (
            <button className="button-small mt-1 min-h-11" onClick={() => onRung(item, rung)}>
              {t('Yes: {rung}', { rung: rungInWords(rung) })}
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
