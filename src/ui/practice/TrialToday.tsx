'use client';
import { AudioLines } from 'lucide-react';
import { useEffect, useState } from 'react';
import { armOn, laterDue, trialOf } from '../../core/practice/trial';
import { type Arm, type Entry, isDone, type TrialLine } from '../../core/practice/types';
import { useLanguage } from '../language/language';

/** What a day's turn in a trial is, or which line is followed up. */
export interface Trying {
  arm: Arm;
  follows: { line: TrialLine; minutes: number } | null;
}

const MINUTE_MS = 60_000;

/** The way into today's part of a trial of one: before anything else is sung, and once more ten minutes later. */
export function TrialToday({
  log,
  trial,
  day,
  onBegin,
}: {
  log: readonly Entry[];
  trial: string;
  day: string;
  onBegin: (trying: Trying) => void;
}) {
  const { t } = useLanguage();
  const [now, setNow] = useState(() => new Date());
  useEffect(() => {
    const tick = setInterval(() => setNow(new Date()), MINUTE_MS);
    return () => clearInterval(tick);
  }, []);
  const arm = armOn(log, trial, day);
  const due = laterDue(log, trial, day, now);
  const { days, of } = trialOf(log, trial);
  // What was practised before would be in the figures.
  const sung = log.some((e) => e.day === day && isDone(e));
  if (due)
    return (
      <button className="button min-h-12 justify-start text-left" onClick={() => onBegin({ arm: due.line.arm, follows: due })}>
        <AudioLines aria-hidden size={20} className="shrink-0" /> {t('The trial’s slides once more: what lasts?')}
      </button>
    );
  if (!arm || sung) return null;
  return (
    <button className="button min-h-12 justify-start text-left" onClick={() => onBegin({ arm, follows: null })}>
      <AudioLines aria-hidden size={20} className="shrink-0" />{' '}
      {t('The trial, day {days} of {of}: five minutes, before anything else', { days: days + 1, of })}
    </button>
  );
}
