import { useCallback, useEffect, useMemo, useState } from 'react';
import type { CoachMark } from '../../core/map/types';
import { say, Word, wordsUnder } from '../../sync/words';
import { addressOf, requestOf } from '../../sync/ask';

/** One step of the coach's: what a mark was and became. */
interface Change {
  id: string;
  before: CoachMark | undefined;
  after: CoachMark | undefined;
}

const inBody = ({ timeS, midi, direction, verdict, by }: CoachMark) => ({ timeS, midi, direction, verdict, by });
const withWord = (marks: CoachMark[], { path, body }: Word): CoachMark[] => {
  const id = path.slice(path.lastIndexOf('/') + 1);
  const others = marks.filter((m) => m.id !== id);
  return body ? [...others, { id, ...(body as Omit<CoachMark, 'id'>) }] : others;
};

/** The coach's marks on a take: shown at once, kept and sent behind, and every step can be undone. */
export function useMarks(takeId: string, stored: CoachMark[]) {
  /** Said here, or before a reload and not with the server then: this page knows better than what it was drawn from. */
  const [said, setSaid] = useState<Word[]>([]);
  const [steps, setSteps] = useState<Change[]>([]);
  const [undone, setUndone] = useState<Change[]>([]);
  const path = addressOf('PUT /api/takes/[takeId]/marks/[markId]', { takeId, markId: '' });
  // eslint-disable-next-line react-hooks/set-state-in-effect
  useEffect(() => setSaid((now) => [...wordsUnder(path), ...now]), [path]);
  const marks = useMemo(() => said.reduce(withWord, stored), [said, stored]);

  const put = useCallback(
    (id: string, next: CoachMark | undefined) => {
      const params = { takeId, markId: id };
      const word: Word = next
        ? requestOf('PUT /api/takes/[takeId]/marks/[markId]', { params, body: inBody(next) })
        : requestOf('DELETE /api/takes/[takeId]/marks/[markId]', { params });
      setSaid((now) => [...now, word]);
      say(word);
    },
    [takeId],
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

  return { marks, set, undo: steps.length > 0 ? undo : null, redo: undone.length > 0 ? redo : null };
}
