import { useState } from 'react';
import type { OtherTake } from '../../contract/answers';
import { ask } from '../../sync/ask';
import { Choice } from '../kit/Choice';
import { TASK_WORDS } from '../kit/words';
import { useLanguage } from '../language/language';

/** Another take, of this singer or another, to hear and see beside this one: A is this take, B the other. */
export function Compare({
  singerId,
  singers,
  others,
  chosen,
  onChoose,
  onPlay,
  onNote,
}: {
  singerId: string;
  singers: readonly { id: string; name: string }[];
  /** This singer's other takes. */
  others: readonly OtherTake[];
  chosen: string;
  onChoose: (id: string) => void;
  onPlay: (which: 'A' | 'B') => void;
  /** Plays both at the note the cursor is on. */
  onNote: () => void;
}) {
  const { dateTimeOf, t } = useLanguage();
  const [whose, setWhose] = useState(singerId);
  const [takes, setTakes] = useState(others);
  const look = (id: string) => {
    setWhose(id);
    onChoose('');
    setTakes(id === singerId ? others : []);
    if (id !== singerId)
      void ask('GET /api/singers/[singerId]/takes', { params: { singerId: id } }).then(setTakes, () => {
        setWhose(singerId);
        setTakes(others);
      });
  };
  return (
    <div className="flex flex-wrap items-end gap-2">
      {singers.length > 1 && <Choice label={t('Of')} value={whose} options={singers.map((s) => [s.id, s.name] as const)} onChange={look} />}
      <Choice
        label={t('Beside it')}
        value={chosen}
        options={[['', 'nothing'], ...takes.map((o) => [o.id, `${TASK_WORDS[o.task]}, ${dateTimeOf(o.recordedAt)}`] as const)]}
        onChange={onChoose}
      />
      {chosen && (
        <>
          <button className="button" title="1" onClick={() => onPlay('A')}>
            {t('Hear A, this take')}
          </button>
          <button className="button" title="2" onClick={() => onPlay('B')}>
            {t('Hear B, the faint one')}
          </button>
          <button className="button" title="3" onClick={onNote}>
            {t('Both at this note')}
          </button>
        </>
      )}
    </div>
  );
}
