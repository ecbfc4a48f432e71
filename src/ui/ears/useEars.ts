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
  const answer = useCallback(
    (task: EarTask, isRight: boolean) =>
      setRecords((all) => {
        const next = { ...all, [task]: answered(all[task], isRight) };
        localStorage.setItem(keyOf(), JSON.stringify(next));
        return next;
      }),
    [],
  );
  const forget = useCallback((task: EarTask) => {
    setRecords((all) => {
      const next = { ...all, [task]: NO_ANSWERS };
      localStorage.setItem(keyOf(), JSON.stringify(next));
      return next;
    });
  }, []);
  return { records, answer, forget };
}
