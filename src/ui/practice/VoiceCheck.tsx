'use client';
import { useState } from 'react';
import { soundKey } from '../../audio/keyboard';
import { noteName } from '../../core/music/pitch';
import { isWarm, Readiness, readinessOf } from '../../core/practice/readiness';
import type { Check, Entry } from '../../core/practice/types';
import { CHECK_PARTS, checkedIn, CheckPart, MARKER_SOUND, PartHeard, SIREN_SOUND } from '../../core/practice/voice-check';
import type { Task } from '../../core/take/types';
import { Notice } from '../kit/Notice';
import { ListenHere } from './ListenHere';
import { useHeardHere } from './useHeardHere';

const NOTE_MS = 1200;
/** Of the piano, 0 to 1. */
const LOUDNESS = 0.6;
/** The piano has died away before the phone listens. */
const PIANO_GONE_MS = 700;

const ASKS: Record<CheckPart, { task: Task; name: string; asks: (note: string) => string; mostMs: number }> = {
  count: { task: 'speech', name: 'Count', asks: () => 'Count aloud from one to ten, as you speak.', mostMs: 9000 },
  marker: {
    task: 'sustain',
    name: 'One soft note',
    asks: (note) => `Hear ${note}, then sing it on “${MARKER_SOUND}” as softly as you can, and hold it.`,
    mostMs: 5000,
  },
  siren: {
    task: 'siren',
    name: 'One soft siren',
    asks: () => `One soft siren on “${SIREN_SOUND}”: up as far as it is easy, and back.`,
    mostMs: 11_000,
  },
};

const pause = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

/** The one-minute check of today's voice, heard on this phone only: three short things to sing, and what they say against good days. */
export function VoiceCheck({
  parts = CHECK_PARTS,
  warm,
  markerMidi,
  log,
  day,
  singer,
  token,
  onCheck,
  onLeave,
}: {
  parts?: readonly CheckPart[];
  /** Sung after the warm-up: whether it is warm. */
  warm: boolean;
  markerMidi: number;
  log: readonly Entry[];
  day: string;
  singer: { id: string; name: string };
  token: string;
  onCheck: (check: Check) => void;
  onLeave: () => void;
}) {
  const [heard, setHeard] = useState<Partial<Record<CheckPart, PartHeard>>>({});
  const [at, setAt] = useState(0);
  const [sounding, setSounding] = useState(false);
  const part = parts[at];
  const listening = useHeardHere(singer, token, 'check', (one, close) => {
    const { quality } = one.findings;
    if (at + 1 === parts.length) close();
    // A soft note that doesn't come is an answer; a silent count or siren is a part to be sung again.
    if (!quality.usable && part !== 'marker') return quality.reasons[0];
    setHeard((all) => ({ ...all, [part]: one }));
    setAt(at + 1);
  });
  const begin = async () => {
    listening.setProblem(null);
    if (part === 'marker') {
      setSounding(true);
      try {
        await soundKey({ does: 'press', midi: markerMidi, velocity: LOUDNESS });
        await pause(NOTE_MS);
        await soundKey({ does: 'release', midi: markerMidi });
        await pause(PIANO_GONE_MS);
      } catch {
        listening.setProblem(`The piano can’t be heard here: take ${noteName(markerMidi)} from where you can.`);
      }
      setSounding(false);
    }
    await listening.begin(ASKS[part].task, ASKS[part].mostMs);
  };

  if (!part)
    return (
      <Result
        check={{ kind: 'check', warm, markerMidi, ...checkedIn(heard, markerMidi) }}
        log={log}
        day={day}
        onCheck={onCheck}
        onAgain={() => {
          setHeard({});
          setAt(0);
        }}
      />
    );
  return (
    <section className="card flex flex-col gap-3" aria-labelledby="check">
      <h2 id="check" className="text-2xl font-bold">
        {warm ? 'Is it warm?' : 'Today’s voice'}
      </h2>
      <p className="text-soft">
        {parts.length > 1 && `${at + 1} of ${parts.length}: `}
        {ASKS[part].name}
      </p>
      <p className="text-lg">{ASKS[part].asks(noteName(markerMidi))}</p>
      {listening.problem && <Notice>{listening.problem}</Notice>}
      <ListenHere listening={listening} sounding={sounding} onBegin={() => void begin()} onLeave={onLeave} />
    </section>
  );
}

/** What a check says, before it is told. */
function Result({
  check,
  log,
  day,
  onCheck,
  onAgain,
}: {
  check: Check;
  log: readonly Entry[];
  day: string;
  onCheck: (check: Check) => void;
  onAgain: () => void;
}) {
  const of = readinessOf(check, log, day);
  const warm = check.warm ? isWarm(check, log, day) : null;
  return (
    <section className="card flex flex-col gap-3" aria-labelledby="said" data-testid="check-result">
      <h2 id="said" className="text-2xl font-bold">
        {check.warm ? WARM_WORDS[`${warm}`] : readyWords(of)}
      </h2>
      {check.sounded === false && <p className="text-lg">The soft {noteName(check.markerMidi)} didn’t come.</p>}
      {of.because.map((why) => (
        <p key={why} className="text-lg">
          {why}
        </p>
      ))}
      <button className="button-main min-h-14 text-lg" onClick={() => onCheck(check)}>
        That’s how it is
      </button>
      <button className="button min-h-12" onClick={onAgain}>
        Sing it again
      </button>
    </section>
  );
}

const WARM_WORDS = {
  true: 'Warm',
  false: 'Not warm yet: another stage, or a few minutes of rest',
  null: 'Kept: with two good days Wendel can tell',
};

const LOWER = ['As on good days', 'A little under its good days', 'Under its good days', 'Far under its good days'];
const readyWords = ({ gone, days, lowerSt, stands }: Readiness): string =>
  gone
    ? 'Rest today'
    : stands.length === 0
      ? `Kept: ${days === 0 ? 'two more good days' : 'another good day'} to compare with`
      : LOWER[lowerSt];
