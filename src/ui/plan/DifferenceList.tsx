import { said, Said } from '../../core/words/said';
import { notesInWords } from '../../core/exercise/keys';
import type { Difference } from '../../core/plan/edits';
import type { PlanItem } from '../../core/plan/types';
import { useLanguage } from '../language/language';

const valueOf = (it: PlanItem, field: keyof PlanItem): Said => {
  switch (field) {
    case 'keys':
      return notesInWords(it.keys);
    case 'sound':
      return said('“{sound}”', { sound: it.sound });
    case 'tempo':
      return `♩ = ${it.tempo}`;
    case 'minutes':
      return said('{minutes} min', { minutes: it.minutes });
    case 'timesADay':
      return said('{times} × a day', { times: it.timesADay });
    case 'days':
      return said('{n, plural, one {# day} other {# days}}', { n: it.days.length });
    case 'cues':
      return it.cues?.join(', ') ?? said('nothing said');
    default:
      return field;
  }
};

/** Two plans side by side in words: + only in the second, − only in the first, and what changed. */
export function DifferenceList({
  differences,
  before,
  after,
  name,
}: {
  differences: Difference[];
  before: PlanItem[];
  after: PlanItem[];
  name: (id: string) => string;
}) {
  const { t } = useLanguage();
  if (differences.length === 0) return <p className="text-sm">{t('No difference.')}</p>;
  const of = (items: PlanItem[], id: string) => items.find((it) => it.exerciseId === id)!;
  return (
    <ul aria-label={t('Differences')} className="max-h-56 overflow-y-auto text-sm" tabIndex={0}>
      {differences.map(({ exerciseId: id, kind, fields }) => (
        <li key={id}>
          <b>{kind === 'added' ? '+ ' : kind === 'out' ? '− ' : '≠ '}</b>
          {t(name(id))}
          {kind === 'changed' && (
            <span className="text-soft">
              : {fields.map((f) => `${t(valueOf(of(before, id), f))} → ${t(valueOf(of(after, id), f))}`).join('; ')}
            </span>
          )}
        </li>
      ))}
    </ul>
  );
}
