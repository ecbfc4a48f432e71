'use client';
import { useState } from 'react';
import { soundKey } from '../../audio/keyboard';
import { isWarm, Readiness, readinessOf } from '../../core/practice/readiness';
import type { Check, Entry } from '../../core/practice/types';
import { CHECK_PARTS, checkedIn, CheckPart, MARKER_SOUND, PartHeard, SIREN_SOUND } from '../../core/practice/voice-check';
import type { Task } from '../../core/take/types';
import { Notice } from '../kit/Notice';
import { ListenHere } from './ListenHere';
import { useHeardHere } from './useHeardHere';
import { useLanguage } from '../language/language';
import { said, Said, SaidValue, texts } from '../../core/words/said';

const NOTE_MS = 1200;
/** Of the piano, 0 to 1. */
const LOUDNESS = 0.6;
/** The piano has died away before the phone listens. */
const PIANO_GONE_MS = 700;

const ASKS: Record<CheckPart, { task: Task; name: string; asks: (note: SaidValue) => Said; mostMs: number }> = {
  count: { task: 'speech', name: texts('Count'), asks: () => said('Count aloud from one to ten, as you speak.'), mostMs: 9000 },
  marker: {
    task: 'sustain',
    name: texts('One soft note'),
    asks: (note) => said('Hear {note}, then sing it on “{sound}” as softly as you can, and hold it.', { note, sound: MARKER_SOUND }),
    mostMs: 5000,
  },
  siren: {
    task: 'siren',
    name: texts('One soft siren'),
    asks: () => said('One soft siren on “{sound}”: up as far as it is easy, and back.', { sound: SIREN_SOUND }),
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
  const { t } = useLanguage();
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
        listening.setProblem(said('The piano can’t be heard here: take {note} from where you can.', { note: { note: markerMidi } }));
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
        {warm ? t('Is it warm?') : t('Today’s voice')}
      </h2>
      <p className="text-soft">
        {parts.length > 1 && t('{n} of {of}: ', { n: at + 1, of: parts.length })}
        {t(ASKS[part].name)}
      </p>
      <p className="text-lg">{t(ASKS[part].asks({ note: markerMidi }))}</p>
      {listening.problem && <Notice>{t(listening.problem)}</Notice>}
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
  const { t } = useLanguage();
  const of = readinessOf(check, log, day);
  const warm = check.warm ? isWarm(check, log, day) : null;
  return (
    <section className="card flex flex-col gap-3" aria-labelledby="said" data-testid="check-result">
      <h2 id="said" className="text-2xl font-bold">
        {check.warm ? t(WARM_WORDS[`${warm}`]) : t(readyWords(of))}
      </h2>
      {check.sounded === false && <p className="text-lg">{t('The soft {note} didn’t come.', { note: { note: check.markerMidi } })}</p>}
      {of.because.map((why) => (
        <p key={t(why)} className="text-lg">
          {t(why)}
        </p>
      ))}
      <button className="button-main min-h-14 text-lg" onClick={() => onCheck(check)}>
        {t('That’s how it is')}
      </button>
      <button className="button min-h-12" onClick={onAgain}>
        {t('Sing it again')}
      </button>
    </section>
  );
}

const WARM_WORDS = texts({
  true: 'Warm',
  false: 'Not warm yet: another stage, or a few minutes of rest',
  null: 'Kept: with two good days Wendel can tell',
});

const LOWER = texts(['As on good days', 'A little under its good days', 'Under its good days', 'Far under its good days']);
const readyWords = ({ gone, days, lowerSt, stands }: Readiness): Said =>
  gone
    ? said('Rest today')
    : stands.length > 0
      ? LOWER[lowerSt]
      : days === 0
        ? said('Kept: two more good days to compare with')
        : said('Kept: another good day to compare with');
