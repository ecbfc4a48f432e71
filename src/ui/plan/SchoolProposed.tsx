import { schoolById } from '../../core/map/schools';
import type { SchoolFor } from '../../core/plan/which-school';
import { useLanguage } from '../language/language';

/** That another school may suit this voice and what is wanted of it better: what speaks for it, and what against the one that is taught. */
export function SchoolProposed({
  name,
  proposed: { instead, taught },
  onLook,
}: {
  name: string;
  proposed: { instead: SchoolFor; taught: SchoolFor };
  onLook: () => void;
}) {
  const { rich, t } = useLanguage();
  const school = schoolById(instead.id).name;
  const inWords = (reasons: readonly string[]) => reasons.map((why) => t(why)).join(' ');
  return (
    <section
      aria-label={t('Another school to think of')}
      className="rounded-lg border border-line bg-card p-2 text-sm"
      data-testid="school-proposed"
    >
      <div className="flex flex-wrap items-center gap-2">
        <p className="min-w-0 flex-1">
          {rich('For {name} think of <b>{school}</b>.', { name: { own: name }, school }, { b: (inside) => <b>{inside}</b> })}{' '}
          {inWords(instead.speaksFor)}
          {instead.speaksAgainst.length > 0 && t(' Against it: {reasons}', { reasons: inWords(instead.speaksAgainst) })}
        </p>
        <button className="button-small" onClick={onLook}>
          {t('Look at it')}
        </button>
      </div>
      {(taught.speaksFor.length > 0 || taught.speaksAgainst.length > 0) && (
        <p className="text-soft">
          {t('{name}, as now: {reasons}', {
            name: schoolById(taught.id).name,
            reasons: inWords([...taught.speaksFor, ...taught.speaksAgainst]),
          })}
        </p>
      )}
    </section>
  );
}
