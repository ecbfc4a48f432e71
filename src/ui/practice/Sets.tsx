import { ChevronRight } from 'lucide-react';
import type { OccasionId, OccasionSet } from '../../core/plan/occasions';
import { useLanguage } from '../language/language';

type Shown = Pick<OccasionSet, 'id' | 'name' | 'says' | 'minutes'>;

/** Warm-ups and sets for what a day brings: the one to begin with, and the others behind it. */
export function Sets({ sets, first, onChoose }: { sets: readonly Shown[]; first: OccasionId; onChoose: (id: OccasionId) => void }) {
  const { t } = useLanguage();
  const suggested = sets.find((s) => s.id === first);
  const others = sets.filter((s) => s !== suggested);
  if (sets.length === 0) return null;
  const one = ({ id, name, says, minutes }: Shown) => (
    <button key={id} className="card flex w-full items-center gap-3 p-3 text-left" data-testid="set" onClick={() => onChoose(id)}>
      <span className="min-w-0 flex-1">
        <span className="block text-lg leading-tight font-semibold">{t(name)}</span>
        <span className="block text-sm text-soft">{t('{minutes} min · {says}', { minutes, says })}</span>
      </span>
      <ChevronRight aria-hidden />
    </button>
  );
  return (
    <section aria-label={t('Warm-ups and other sets')} className="flex flex-col gap-2">
      {suggested && one(suggested)}
      {others.length > 0 && (
        <details>
          <summary className="min-h-11 cursor-pointer content-center font-semibold">{t('Other sets')}</summary>
          <div className="flex flex-col gap-2">{others.map(one)}</div>
        </details>
      )}
    </section>
  );
}
