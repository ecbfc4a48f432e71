import { useCallback, useEffect, useState } from 'react';
import { answered, NO_ANSWERS } from '../../core/ears/staircase';
import { EAR_TASKS, EarRecord, EarTask } from '../../core/ears/types';
import { presentAccount } from '../../sync/account';

type Records = Record<EarTask, EarRecord>;

const NOTHING = Object.fromEntries(EAR_TASKS.map((t) => [t, NO_ANSWERS])) as Records;
/** One browser may serve many: each coach's own. */
const keyOf = () => `wendel-ears ${presentAccount() ?? ''}`;

/** How this coach's ear has done in each task; kept in this browser. */
export function useEars() {
  const [records, setRecords] = useState<Records>(NOTHING);
  useEffect(() => {
    const kept = localStorage.getItem(keyOf());
    // eslint-disable-next-line react-hooks/set-state-in-effect
    if (kept) setRecords({ ...NOTHING, ...(JSON.parse(kept) as Partial<Records>) });
  }, []);
  const change = useCallback(
    (task: EarTask, to: (record: EarRecord) => EarRecord) =>
      setRecords((all) => {
        const next = { ...all, [task]: to(all[task]) };
        localStorage.setItem(keyOf(), JSON.stringify(next));
        return next;
      }),
    [],
  );
  const answer = (task: EarTask, isRight: boolean) => change(task, (record) => answered(record, isRight));
  const forget = (task: EarTask) => change(task, () => NO_ANSWERS);
  return { records, answer, forget };
}
