import { useRouter } from 'next/navigation';
import { useCallback, useRef, useState } from 'react';
import type { CoachMark } from '../../core/map/types';
import { request, sendJson } from '../kit/request';

/** One step of the coach's: what a mark was and became. */
interface Change {
  id: string;
  before: CoachMark | undefined;
  after: CoachMark | undefined;
}

/** The coach's marks on a take: shown at once, stored behind, and every step can be undone. */
export function useMarks(takeId: string, stored: CoachMark[]) {
  const router = useRouter();
  const [marks, setMarks] = useState(stored);
  const [problem, setProblem] = useState<string | null>(null);
  const [steps, setSteps] = useState<Change[]>([]);
  const [undone, setUndone] = useState<Change[]>([]);
  const queue = useRef<Promise<unknown>>(Promise.resolve());

  const put = useCallback(
    (id: string, next: CoachMark | undefined) => {
      setMarks((all) => [...all.filter((m) => m.id !== id), ...(next ? [next] : [])]);
      setProblem(null);
      const path = `/api/takes/${takeId}/marks/${id}`;
      // One after another: a later word must not overtake an earlier one.
      queue.current = queue.current
        .then(() =>
          next
            ? sendJson('PUT', path, { timeS: next.timeS, midi: next.midi, direction: next.direction, verdict: next.verdict, by: next.by })
            : request(path, { method: 'DELETE' }),
        )
        .then(() => router.refresh())
        .catch((error: Error) => setProblem(`Your mark is shown but not stored: ${error.message}`));
    },
    [router, takeId],
  );

  const set = useCallback(
    (id: string, next: CoachMark | undefined) => {
      setSteps((s) => [...s, { id, before: marks.find((m) => m.id === id), after: next }]);
      setUndone([]);
      put(id, next);
    },
    [marks, put],
  );

  const undo = useCallback(() => {
    const last = steps[steps.length - 1];
    if (!last) return;
    setSteps((s) => s.slice(0, -1));
    setUndone((u) => [...u, last]);
    put(last.id, last.before);
  }, [put, steps]);

  const redo = useCallback(() => {
    const last = undone[undone.length - 1];
    if (!last) return;
    setUndone((u) => u.slice(0, -1));
    setSteps((s) => [...s, last]);
    put(last.id, last.after);
  }, [put, undone]);

  return { marks, problem, set, undo: steps.length > 0 ? undo : null, redo: undone.length > 0 ? redo : null };
}
