'use client';
import { useEffect, useState } from 'react';
import { brokeIn } from '../../core/practice/trial';
import type { Arm, Broke, TrialLine } from '../../core/practice/types';
import { SIREN_SOUND } from '../../core/practice/voice-check';
import { Notice } from '../kit/Notice';
import { useAwake } from '../kit/useAwake';
import { ListenHere, NotToday } from './ListenHere';
import { useHeardHere } from './useHeardHere';
import { useLanguage } from '../language/language';
import { said, texts } from '../../core/words/said';

/** What is done between the slides, and for how long. */
const ARM_S = 120;
const ARM_ASKS: Record<Arm, { name: string; asks: string }> = texts({
  straw: {
    name: 'Through the straw',
    asks: 'For two minutes: slow slides through the straw, from low to as far up as it is easy, and back. Breathe whenever you like.',
  },
  hum: { name: 'Humming', asks: 'For two minutes: slow hummed slides, lips closed, from low to as far up as it is easy, and back.' },
  nothing: { name: 'Silence', asks: 'For two minutes: no sound at all. Sit, breathe, and wait.' },
});
const SLIDES_MS = 30_000;
const SECOND_MS = 1000;

/** One day of a trial of one: slides, two minutes of what is drawn, the same slides again; or (`follows`) the slides once more, later. */
export function TrialDay({
  trial,
  arm,
  follows,
  changeMidi,
  singer,
  token,
  onLine,
  onLeave,
}: {
  trial: string;
  arm: Arm;
  /** Today's line that is followed up, and how many minutes ago it was. */
  follows: { line: TrialLine; minutes: number } | null;
  changeMidi: number;
  singer: { id: string; name: string };
  token: string;
  onLine: (line: TrialLine) => void;
  onLeave: () => void;
}) {
  const { t } = useLanguage();
  const [before, setBefore] = useState<Broke | null>(follows?.line.before ?? null);
  /** When the arm is over, milliseconds; null: not begun. */
  const [until, setUntil] = useState<number | null>(null);
  const [left, setLeft] = useState(ARM_S);
  const waiting = until !== null && left > 0;
  useAwake(waiting);
  useEffect(() => {
    if (until === null) return;
    const tick = setInterval(() => setLeft(Math.max(0, Math.ceil((until - Date.now()) / SECOND_MS))), SECOND_MS);
    return () => clearInterval(tick);
  }, [until]);
  const listening = useHeardHere(singer, token, 'trial', ({ findings }, close) => {
    const broke = findings.quality.usable ? brokeIn(findings, changeMidi) : null;
    if (!broke) return findings.quality.reasons[0] ?? said('The slides must go well over the change and back, twice.');
    // No microphone is open while nothing is listened to.
    close();
    if (before) onLine({ kind: 'trial', trial, arm, minutes: follows?.minutes ?? 0, before, after: broke });
    else setBefore(broke);
  });
  const slides = before === null || follows !== null || (until !== null && !waiting);
  return (
    <section className="card flex flex-col gap-3" aria-labelledby="trial">
      <h2 id="trial" className="text-2xl font-bold">
        {slides ? (before ? t('The same slides again') : t('Two slides first')) : t(ARM_ASKS[arm].name)}
      </h2>
      <p className="text-lg">
        {slides
          ? t('Two slides on “{sound}”, neither soft nor loud: from low to well over the change, and back, twice on end.', {
              sound: SIREN_SOUND,
            })
          : t(ARM_ASKS[arm].asks)}
      </p>
      {listening.problem && <Notice>{t(listening.problem)}</Notice>}
      {slides ? (
        <ListenHere
          listening={listening}
          onBegin={() => {
            listening.setProblem(null);
            void listening.begin('siren', SLIDES_MS);
          }}
          onLeave={onLeave}
        />
      ) : (
        <>
          {waiting ? (
            <p className="text-center text-4xl font-bold tabular-nums" role="timer">
              {Math.floor(left / 60)}:{String(left % 60).padStart(2, '0')}
            </p>
          ) : (
            <button className="button-main min-h-16 text-xl" onClick={() => setUntil(Date.now() + ARM_S * SECOND_MS)}>
              {t('Begin the two minutes')}
            </button>
          )}
          <NotToday onLeave={onLeave} />
        </>
      )}
    </section>
  );
}
