import { ArrowDown, ArrowUp, Check, Play, X } from 'lucide-react';
import type { CoachMark } from '../../core/map/types';
import { markOn } from '../../core/map/votes';
import type { Change } from '../../core/take/changes';
import { ForCoaches } from '../kit/may-change';
import { EVENT_WORDS } from '../kit/words';
import { useLanguage } from '../language/language';

/** What the machine found, each with the coach's word on it, and what the coach and the singer noted besides. */
export function ChangeList({
  changes,
  marks,
  selected,
  onSelect,
  onSay,
  onMove,
  onTakeBack,
}: {
  changes: Change[];
  marks: CoachMark[];
  selected: number;
  onSelect: (index: number) => void;
  /** The coach's word on a change; null takes it back. */
  onSay: (change: Change, verdict: 'accept' | 'reject' | null) => void;
  /** By so many semitones. */
  onMove: (change: Change, by: number) => void;
  /** An added mark, by its id. */
  onTakeBack: (id: string) => void;
}) {
  const { decimal, note, t } = useLanguage();
  const added = marks.filter((m) => m.verdict === 'add');
  return (
    <ol className="flex flex-col gap-2">
      {changes.map((change, i) => {
        const mark = markOn(change, marks);
        return (
          <li
            key={change.timeS}
            className={`rounded-xl border bg-card p-3 ${i === selected ? 'border-accent' : 'border-line'}`}
            data-testid="change"
          >
            <div className="flex items-center gap-2">
              <button
                className="flex min-h-11 flex-1 items-center gap-3 text-left"
                onClick={() => onSelect(i)}
                title={t('J and K go through the changes')}
              >
                <Play aria-hidden size={18} className="shrink-0 text-accent" />
                <span className={`text-2xl font-bold ${mark?.verdict === 'reject' ? 'line-through' : ''}`}>
                  {note(mark && mark.verdict !== 'reject' ? mark.midi : change.midi)}
                </span>
                <span className="text-sm">
                  {t('{what}, going {direction}', { what: EVENT_WORDS[change.kind], direction: change.direction })}
                  <br />
                  <span className="text-soft">
                    {decimal(change.timeS, 1)} s{mark?.verdict === 'move' ? t(', machine: {note}', { note: { note: change.midi } }) : ''}
                  </span>
                </span>
              </button>
            </div>
            <ForCoaches>
              <div className="mt-1 flex gap-1">
                <Verdict
                  on={mark?.verdict === 'accept'}
                  label={t('Right')}
                  hint="A"
                  onClick={() => onSay(change, mark?.verdict === 'accept' ? null : 'accept')}
                >
                  <Check aria-hidden size={16} />
                </Verdict>
                <Verdict
                  on={mark?.verdict === 'reject'}
                  label={t('Nothing there')}
                  hint="X"
                  onClick={() => onSay(change, mark?.verdict === 'reject' ? null : 'reject')}
                >
                  <X aria-hidden size={16} />
                </Verdict>
                <span className="flex-1" />
                <button
                  className="button-small min-h-11 min-w-11"
                  aria-label={t('Move the change at {note} down a semitone', { note: { note: change.midi } })}
                  title={t('Arrow down')}
                  onClick={() => onMove(change, -1)}
                >
                  <ArrowDown aria-hidden size={16} />
                </button>
                <button
                  className="button-small min-h-11 min-w-11"
                  aria-label={t('Move the change at {note} up a semitone', { note: { note: change.midi } })}
                  title={t('Arrow up')}
                  onClick={() => onMove(change, 1)}
                >
                  <ArrowUp aria-hidden size={16} />
                </button>
              </div>
            </ForCoaches>
          </li>
        );
      })}
      {added.map((m) => (
        <li key={m.id} className="flex items-center gap-3 rounded-xl border border-line bg-card p-3" data-testid="added">
          <span className="text-2xl font-bold">{note(m.midi)}</span>
          <span className="flex-1 text-sm">
            {t('{what}, going {direction}', {
              what: m.by === 'coach' ? 'you heard a change' : 'the singer feels it change',
              direction: m.direction,
            })}
            <br />
            <span className="text-soft">{decimal(m.timeS, 1)} s</span>
          </span>
          <ForCoaches>
            <button
              className="button-small min-h-11 min-w-11"
              aria-label={t('Take back your mark at {note}', { note: { note: m.midi } })}
              onClick={() => onTakeBack(m.id)}
            >
              <X aria-hidden size={16} />
            </button>
          </ForCoaches>
        </li>
      ))}
    </ol>
  );
}

function Verdict({
  on,
  label,
  hint,
  onClick,
  children,
}: {
  on: boolean;
  label: string;
  hint: string;
  onClick: () => void;
  children: React.ReactNode;
}) {
  return (
    <button aria-pressed={on} title={hint} onClick={onClick} className={`button-small min-h-11 ${on ? 'border-coach text-coach' : ''}`}>
      {children} {label}
    </button>
  );
}
