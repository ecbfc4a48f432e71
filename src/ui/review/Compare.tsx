import { Choice } from '../kit/Choice';
import { dateTimeOf } from '../kit/dates';
import { TASK_WORDS } from '../kit/words';
import type { Task } from '../../core/take/types';

export interface OtherTake {
  id: string;
  task: Task;
  recordedAt: Date;
}

/** Another take to hear and see beside this one: A is this take, B the other. */
export function Compare({
  others,
  chosen,
  onChoose,
  onPlay,
}: {
  others: OtherTake[];
  chosen: string;
  onChoose: (id: string) => void;
  onPlay: (which: 'A' | 'B') => void;
}) {
  if (others.length === 0) return null;
  return (
    <div className="flex flex-wrap items-end gap-2">
      <Choice
        label="Beside it"
        value={chosen}
        options={[['', 'nothing'], ...others.map((o) => [o.id, `${TASK_WORDS[o.task]}, ${dateTimeOf(o.recordedAt)}`] as const)]}
        onChange={onChoose}
      />
      {chosen && (
        <>
          <button className="button" title="1" onClick={() => onPlay('A')}>
            Hear A, this take
          </button>
          <button className="button" title="2" onClick={() => onPlay('B')}>
            Hear B, the faint one
          </button>
        </>
      )}
    </div>
  );
}
