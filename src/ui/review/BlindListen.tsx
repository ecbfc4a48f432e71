import type { CoachMark } from '../../core/map/types';
import type { Change } from '../../core/take/changes';
import { useLanguage } from '../language/language';

const BOLD = (inside: React.ReactNode) => <b>{inside}</b>;

/** A mark and a finding this close in time speak of the same moment. */
const SAME_S = 0.6;

export type Blind = 'off' | 'listening' | 'compared';

/** How the coach's ear and the machine agree, moment by moment. */
export function agreement(marks: CoachMark[], changes: Change[]) {
  const free = [...changes];
  const both = marks.map((mark) => {
    const at = free.findIndex((c) => Math.abs(c.timeS - mark.timeS) < SAME_S);
    return { mark, change: at < 0 ? null : free.splice(at, 1)[0] };
  });
  return { both, machineOnly: free };
}

/** The second listen without the machine: mark what is heard, then see both side by side. */
export function BlindListen({
  state,
  marks,
  changes,
  onState,
}: {
  state: Blind;
  marks: CoachMark[];
  changes: Change[];
  onState: (state: Blind) => void;
}) {
  const { rich, t } = useLanguage();
  if (state === 'off')
    return (
      <button className="button self-start" onClick={() => onState('listening')}>
        {t('Listen without the machine')}
      </button>
    );
  if (state === 'listening')
    return (
      <div className="card flex flex-col gap-2" data-testid="blind">
        <p>
          {rich('The machine’s findings are hidden. Play, and press <b>M</b> wherever you hear a change.', {}, { b: BOLD })}{' '}
          {marks.length === 0 ? t('Nothing marked yet.') : t('{n} marked.', { n: marks.length })}
        </p>
        <div className="flex gap-2">
          <button className="button-main" onClick={() => onState('compared')}>
            {t('Compare')}
          </button>
          <button className="button" onClick={() => onState('off')}>
            {t('Show everything')}
          </button>
        </div>
      </div>
    );
  const { both, machineOnly } = agreement(marks, changes);
  return (
    <div className="card flex flex-col gap-1" data-testid="compared">
      <h3 className="font-bold">{t('Your ear and the machine')}</h3>
      <ul>
        {both.map(({ mark, change }) => (
          <li key={mark.id}>
            {rich(
              change
                ? '{s, number, ::.0} s: you <b>{you}</b>, the machine <b>{machine}</b>'
                : '{s, number, ::.0} s: you <b>{you}</b>, the machine nothing',
              { s: mark.timeS, you: { note: mark.midi }, ...(change ? { machine: { note: change.midi } } : {}) },
              { b: BOLD },
            )}
          </li>
        ))}
        {machineOnly.map((c) => (
          <li key={c.timeS}>
            {rich('{s, number, ::.0} s: you nothing, the machine <b>{machine}</b>', { s: c.timeS, machine: { note: c.midi } }, { b: BOLD })}
          </li>
        ))}
      </ul>
      <button className="button self-start" onClick={() => onState('off')}>
        {t('Done')}
      </button>
    </div>
  );
}
