import { useCallback, useEffect, useRef, useState } from 'react';
import { advance } from '../../core/lesson/course';
import { withJudged, withoutTake } from '../../core/lesson/record';
import type { Course, JudgedKey, LessonAction } from '../../core/lesson/types';
import { adoptCourse } from '../../sync/earlier';
import { say, wordsUnder } from '../../sync/words';
import { addressOf, requestOf } from '../../sync/ask';

const pathOf = (lessonId: string) => addressOf('PUT /api/lessons/[lessonId]', { lessonId });
/** Apart from the note on the lesson, which goes to the same path. */
const subjectOf = (lessonId: string) => `${pathOf(lessonId)}#course`;

/** What this browser knows of a lesson, if that is newer than what the server has. */
function newest(lessonId: string, stored: Course): Course {
  const said = wordsUnder(pathOf(lessonId)).find((w) => w.subject === subjectOf(lessonId))?.body as { course: Course } | undefined;
  const own = said?.course ?? adoptCourse(lessonId);
  return own && own.revision > stored.revision ? own : stored;
}

/**
 * Where a lesson stands: each action shows at once, is kept in this browser and saved behind; undo and redo go through the
 * whole lesson. `present` reads the newest state outside of rendering.
 */
export function useCourse(lessonId: string, stored: Course) {
  const [course, setCourse] = useState(stored);
  const [past, setPast] = useState<Course[]>([]);
  const [future, setFuture] = useState<Course[]>([]);
  const present = useRef(stored);

  const put = useCallback(
    (next: Course) => {
      present.current = next;
      say({
        ...requestOf('PUT /api/lessons/[lessonId]', { params: { lessonId }, body: { course: next } }),
        subject: subjectOf(lessonId),
        quiet: true,
      });
      setCourse(next);
    },
    [lessonId],
  );

  // A reload while the server was away: this browser knows better.
  useEffect(() => {
    const own = newest(lessonId, stored);
    // eslint-disable-next-line react-hooks/set-state-in-effect
    if (own !== stored) put(own);
  }, [lessonId, stored, put]);

  const act = useCallback(
    (action: LessonAction): Course => {
      const before = present.current;
      const next = advance(before, action);
      setPast((p) => [...p, before]);
      setFuture([]);
      put(next);
      return next;
    },
    [put],
  );

  /** Go back to an earlier state as a new revision; what was heard stays heard. */
  const restore = useCallback(
    ({ judged: _, ...to }: Course) => {
      const { judged, revision } = present.current;
      put({ ...to, ...(judged ? { judged } : {}), revision: revision + 1 });
    },
    [put],
  );
  /** Keep what became of a take, or forget one that was thrown away: no step of the lesson, so nothing to undo. */
  const keepJudged = useCallback((judged: JudgedKey) => put(withJudged(present.current, judged)), [put]);
  const forget = useCallback(
    (takeId: string) => {
      const next = withoutTake(present.current, takeId);
      if (next !== present.current) put(next);
    },
    [put],
  );
  const undo = useCallback(() => {
    const last = past[past.length - 1];
    if (!last) return;
    setPast(past.slice(0, -1));
    setFuture([present.current, ...future]);
    restore(last);
  }, [past, future, restore]);
  const redo = useCallback(() => {
    const [next, ...rest] = future;
    if (!next) return;
    setPast([...past, present.current]);
    setFuture(rest);
    restore(next);
  }, [past, future, restore]);

  return { course, present, act, keepJudged, forget, undo: past.length ? undo : null, redo: future.length ? redo : null };
}
