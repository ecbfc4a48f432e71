import { notesInWords } from '../../core/exercise/keys';
import type { Difference } from '../../core/plan/edits';
import type { PlanItem } from '../../core/plan/types';

const said = (it: PlanItem, field: keyof PlanItem): string => {
  switch (field) {
    case 'keys':
      return notesInWords(it.keys);
    case 'sound':
      return `“${it.sound}”`;
    case 'tempo':
      return `♩ = ${it.tempo}`;
    case 'minutes':
      return `${it.minutes} min`;
    case 'timesADay':
      return `${it.timesADay} × a day`;
    case 'days':
      return `${it.days.length} days`;
    case 'cues':
      return it.cues?.join(', ') ?? 'nothing said';
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
  if (differences.length === 0) return <p className="text-sm">No difference.</p>;
  const of = (items: PlanItem[], id: string) => items.find((it) => it.exerciseId === id)!;
  return (
    <ul aria-label="Differences" className="max-h-56 overflow-y-auto text-sm" tabIndex={0}>
      {differences.map(({ exerciseId: id, kind, fields }) => (
        <li key={id}>
          <b>{kind === 'added' ? '+ ' : kind === 'out' ? '− ' : '≠ '}</b>
          {name(id)}
          {kind === 'changed' && (
            <span className="text-soft">: {fields.map((f) => `${said(of(before, id), f)} → ${said(of(after, id), f)}`).join('; ')}</span>
          )}
        </li>
      ))}
    </ul>
  );
}
