import { said } from '../../core/words/said';
import { ArrowRight } from 'lucide-react';
import type { Phase } from '../../core/plan/types';
import { type GateState, phaseDone } from '../../core/practice/gates';
import { ForCoaches } from '../kit/may-change';
import { useLanguage } from '../language/language';

/** Where the end of the phase stands, as far as it can be reckoned; when all of it is there the next phase is offered. */
export function PhaseEnd({
  gates,
  next,
  name,
  onNext,
}: {
  gates: readonly GateState[];
  next: Phase | undefined;
  name: (id: string) => string;
  onNext: () => void;
}) {
  const { rich, t } = useLanguage();
  if (gates.length === 0) return null;
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm" data-testid="phase-end">
      {gates.map((g) => (
        <p key={g.sings.join()} className="flex items-center gap-2">
          <span>
            {rich(
              '{sung} as meant: <b>{done}</b> of {days} days running',
              { sung: { all: g.sings.map((id) => said('“{name}”', { name: name(id) })), as: 'or' }, done: g.done, days: g.days },
              { b: (inside) => <b>{inside}</b> },
            )}
          </span>
          <span aria-hidden className="flex gap-0.5">
            {Array.from({ length: g.days }, (_, i) => (
              <span key={i} className={`h-3 w-3 rounded-sm border ${i < g.done ? 'border-accent bg-accent' : 'border-line'}`} />
            ))}
          </span>
        </p>
      ))}
      {phaseDone(gates) && next && (
        <ForCoaches>
          <button className="button-small" onClick={onNext}>
            {t('Begin “{name}”', { name: next.name })} <ArrowRight aria-hidden size={16} />
          </button>
        </ForCoaches>
      )}
    </div>
  );
}
