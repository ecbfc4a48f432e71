import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { asItStands } from '../../core/practice/elsewhere';
import type { Entry } from '../../core/practice/types';
import { adoptLines } from '../../sync/earlier';
import { NOTHING_WAITS } from '../../sync/lane';
import { forgetLines, linesKept, sayLine } from '../../sync/practice';
import { takesLane } from '../../sync/takes';
import { KeptWord, onHeard, refusedWords, takeBack, wordsLane } from '../../sync/words';
import { dayKey } from '../plan/days';

/** A singer's log: what the server has, and what waits here to be sent; a new line is kept here first, then sent. `add` gives its id. */
export function usePracticeLog(token: string, given: Entry[], assignmentId: string | null) {
  const [local, setLocal] = useState<Entry[]>([]);
  const [refused, setRefused] = useState<KeptWord[]>([]);
  const lines = useSyncExternalStore(wordsLane.watch, wordsLane.state, () => NOTHING_WAITS);
  const sounds = useSyncExternalStore(takesLane.watch, takesLane.state, () => NOTHING_WAITS);

  useEffect(() => {
    const look = () => {
      setLocal((now) => [...linesKept(token).filter((w) => !now.some((n) => n.id === w.id)), ...now]);
      setRefused(refusedWords());
    };
    const send = () => {
      void wordsLane.flush();
      void takesLane.flush();
    };
    look();
    void adoptLines(token).then(look, () => {});
    send();
    const unhear = onHeard(look);
    addEventListener('online', send);
    return () => {
      unhear();
      removeEventListener('online', send);
    };
  }, [token]);

  const add = useCallback(
    (what: Entry['what'], day = dayKey(new Date())) => {
      const entry: Entry = { id: crypto.randomUUID(), assignmentId, day, at: new Date().toISOString(), what };
      setLocal((now) => [...now, entry]);
      sayLine(token, entry);
      return entry.id;
    },
    [token, assignmentId],
  );
  const discard = useCallback((id: string) => {
    const taken = refusedWords().find((w) => w.id === id);
    if (taken) forgetLines(taken);
    takeBack(id);
    setRefused(refusedWords());
  }, []);

  const entries = useMemo(() => {
    const known = new Set(given.map((e) => e.id));
    return asItStands([...given, ...local.filter((e) => !known.has(e.id))]);
  }, [given, local]);
  return { entries, waiting: lines.waiting + sounds.waiting, refused, add, discard };
}
