'use client';
import { Said, said } from '../../core/words/said';
import { useEffect, useState } from 'react';
import type { VoiceMap } from '../../core/map/types';
import { dayOf } from '../kit/dates';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';

/** The last moment of each day on which something was sung, oldest first. */
export function sessionsOf(recorded: Date[]): Date[] {
  const last = new Map<string, Date>();
  for (const d of recorded.map((r) => new Date(r)).sort((a, b) => a.getTime() - b.getTime())) last.set(dayOf(d), d);
  return [...last.values()];
}

const list = (map: VoiceMap): Said =>
  map.passaggi.length
    ? said('{notes}', { notes: { all: map.passaggi.map((p) => said('{note}', { note: { note: p.midi } })), as: 'comma' } })
    : said('not clear');
const reach = ({ extreme }: VoiceMap): Said =>
  extreme ? said('{low} to {high}', { low: { note: extreme.low.midi }, high: { note: extreme.high.midi } }) : said('not known');

/** Go back through the days: the map as it stood then is drawn as a ghost behind today's. */
export function Dates({
  singerId,
  sessions,
  map,
  onGhost,
}: {
  singerId: string;
  sessions: Date[];
  map: VoiceMap;
  onGhost: (map: VoiceMap | null) => void;
}) {
  const { dateOf, t } = useLanguage();
  const newest = sessions.length - 1;
  const [at, setAt] = useState(newest);
  const [then, setThen] = useState<VoiceMap | null>(null);
  const [problem, setProblem] = useState('');
  useEffect(() => {
    let current = true;
    const show = (past: VoiceMap | null) => {
      if (!current) return;
      setThen(past);
      onGhost(past);
    };
    if (at === newest) {
      show(null);
      return;
    }
    ask('GET /api/singers/[singerId]/map', { params: { singerId }, query: { until: sessions[at].toISOString() } }).then(show, (e: Error) =>
      setProblem(e.message),
    );
    return () => {
      current = false;
    };
  }, [at, newest, onGhost, sessions, singerId]);
  if (sessions.length < 2) return null;
  return (
    <div className="no-print flex flex-wrap items-center gap-x-4 gap-y-1">
      <label className="flex items-center gap-3 text-sm text-soft">
        {t('As it stood on')}
        <input
          type="range"
          className="h-11 w-56 accent-(--accent)"
          min={0}
          max={newest}
          value={at}
          aria-valuetext={dateOf(sessions[at])}
          onChange={(e) => setAt(Number(e.target.value))}
        />
        <b className="w-16 text-ink">{dateOf(sessions[at])}</b>
      </label>
      <p role="status" className="text-sm" data-testid="then">
        {problem ||
          (then
            ? t('Then: changes {then}, touched {thenReach}. Now: {now}, {nowReach}.', {
                then: list(then),
                thenReach: reach(then),
                now: list(map),
                nowReach: reach(map),
              })
            : '')}
      </p>
    </div>
  );
}
