'use client';
import { texts } from '../../core/words/said';
import { GRADES, STRANDS, Strand } from '../../core/exercise/types';
import type { Grades } from '../../core/plan/types';
import { STRAND_WORDS } from '../kit/words-of-work';
import { useLanguage } from '../language/language';

const GRADES_SAID = texts({
  sure: '{strand}, grade {grade}, reached',
  expected: '{strand}, grade {grade}, expected',
  open: '{strand}, grade {grade}',
});

/** The rungs reached on each strand: expected ones are hollow until the coach confirms one by choosing it. */
export function GradeLadder({
  grades,
  confirmed,
  onConfirm,
}: {
  grades: Grades;
  confirmed: Partial<Grades>;
  onConfirm: (strand: Strand, grade: number | null) => void;
}) {
  const { t } = useLanguage();
  return (
    <div>
      <p className="mb-2 text-sm text-soft">
        {t('Hollow: expected from the map. Press a rung to confirm it; press it again to take that back. Work comes from one rung above.')}
      </p>
      <div className="flex gap-1">
        {STRANDS.map((strand) => {
          const sure = confirmed[strand] !== undefined;
          return (
            <div key={strand} role="group" aria-label={t(STRAND_WORDS[strand])} className="flex min-w-0 flex-1 flex-col-reverse gap-1">
              <span className="h-9 text-center text-xs leading-tight text-soft">{t(STRAND_WORDS[strand])}</span>
              {GRADES.map((g) => {
                const reached = g <= grades[strand];
                return (
                  <button
                    key={g}
                    aria-pressed={confirmed[strand] === g}
                    aria-label={t(reached ? (sure ? GRADES_SAID.sure : GRADES_SAID.expected) : GRADES_SAID.open, {
                      strand: STRAND_WORDS[strand],
                      grade: g,
                    })}
                    onClick={() => onConfirm(strand, confirmed[strand] === g ? null : g)}
                    className={`min-h-9 rounded-md border text-sm ${
                      reached ? (sure ? 'border-accent bg-accent text-accent-ink' : 'border-accent') : 'border-line text-soft'
                    }`}
                  >
                    {g}
                  </button>
                );
              })}
            </div>
          );
        })}
      </div>
    </div>
  );
}
