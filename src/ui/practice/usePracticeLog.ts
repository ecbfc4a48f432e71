import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { keepEntry, keptEntries, sendEntries } from '../../audio/practice-kept';
import type { Before, Done, Entry } from '../../core/practice/types';
import { dayKey } from '../plan/days';

const RETRY_MS = 15_000;

/** A singer's log: what the server has, and what waits here to be sent; a new line is kept here first, then sent. */
export function usePracticeLog(token: string, given: Entry[], assignmentId: string | null) {
  const [local, setLocal] = useState<Entry[]>([]);
  const [waiting, setWaiting] = useState(0);
  const [trouble, setTrouble] = useState<string | null>(null);
  /** Lines that this browser wouldn't keep: held in the page. */
  const held = useRef<Entry[]>([]);

  const send = useCallback(async () => {
    const { waiting: left, refused } = await sendEntries(token, held.current);
    if (left.length === 0) held.current = [];
    setWaiting(left.length);
    setTrouble(refused);
  }, [token]);

  useEffect(() => {
    let current = true;
    void keptEntries(token).then((kept) => {
      if (!current) return;
      setLocal((now) => [...kept.filter((k) => !now.some((n) => n.id === k.id)), ...now]);
      void send();
    });
    const again = () => void send();
    const timer = setInterval(again, RETRY_MS);
    addEventListener('online', again);
    return () => {
      current = false;
      clearInterval(timer);
      removeEventListener('online', again);
    };
  }, [token, send]);

  const add = useCallback(
    async (what: Before | Done, day = dayKey(new Date())) => {
      const entry: Entry = { id: crypto.randomUUID(), assignmentId, day, at: new Date().toISOString(), what };
      setLocal((now) => [...now, entry]);
      await keepEntry(token, entry).catch(() => held.current.push(entry));
      await send();
    },
    [token, assignmentId, send],
  );

  const entries = useMemo(() => {
    const known = new Set(given.map((e) => e.id));
    return [...given, ...local.filter((e) => !known.has(e.id))];
  }, [given, local]);
  return { entries, waiting, trouble, add };
}
