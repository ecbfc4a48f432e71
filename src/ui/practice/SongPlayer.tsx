'use client';
import type { Said } from '../../core/words/said';
import { Mic, Pause, Play, Repeat1, Square } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { clipOf } from '../../audio/clip';
import { useFollowAlong } from '../../audio/follow-along';
import { followOnDevice } from '../../audio/follow-song';
import { openMicrophone } from '../../audio/input';
import { Manner, Model, modelledPhrase, modelsOf } from '../../core/exercise/model';
import type { KeyInTime } from '../../core/exercise/render';
import { readWav } from '../../core/format/wav';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import { loadOf } from '../../core/practice/load';
import type { Done, Load } from '../../core/practice/types';
import { simulatedPhrase } from '../../core/sim/model';
import { songInTime, startingNote } from '../../core/song/in-time';
import { saidKey } from '../../core/song/keys';
import { KeptOutcome, predictionOf } from '../../core/song/outcome';
import { partOf } from '../../core/song/part';
import { risksOf } from '../../core/song/risks';
import { takenAs, wentIn } from '../../core/song/taken';
import type { SongVoice } from '../../core/song/voice';
import { isHigh, waysFor } from '../../core/song/ways';
import { namesFlats } from '../../core/song/written';
import { barName, barsName, breakInWords, UNTOLD } from '../../core/song/words';
import { keepOwn, OwnKey } from '../../sync/own-voice';
import { useAwake } from '../kit/useAwake';
import { VERDICT_WORDS } from '../kit/verdict';
import { Finished, useRecorder } from '../listen/useRecorder';
import { dayKey } from '../plan/days';
import { SongStaff } from '../staff/SongStaff';
import { Ask } from './AlongControls';
import { HearModels } from './HearModels';
import { HearYourself } from './HearYourself';
import { Mirror } from './Mirror';
import { Report, Told } from './Report';
import type { MySong } from './Songs';
import { Tick } from './Tick';
import type { ShortRecording } from '../listen/useShortRecording';
import { useLanguage } from '../language/language';
import { saidOf } from '../../core/words/said-error';

const noFrames = () => {};
const now = () => performance.now();
/** Heard back no longer than this, seconds. */
const MOST_HEARD_S = 60;
const LONGEST_NAME = 80;

/** All that was sung of the song this time. */
interface SoFar {
  seconds: number;
  load: Load | null;
  /** Whether the last try of each phrase that was heard went as meant. */
  went: ReadonlyMap<number, boolean | null>;
}
const NOTHING: SoFar = { seconds: 0, load: null, went: new Map() };

/** One try, as this phone heard it. */
interface Try {
  outcome: KeptOutcome;
  sent: boolean;
  own: { now: OwnKey; before: OwnKey | null };
}

/**
 * A song on the phone: phrase by phrase or on from one, first by the piano, then sung, alone or with the piano in headphones; what happened at
 * the change, heard here only, and how it was.
 */
export function SongPlayer({
  mine: { id, song, semitones, ways, note },
  voice,
  singer,
  token,
  mayKeep,
  models,
  onDone,
  onLeave,
}: {
  mine: MySong;
  voice: SongVoice;
  singer: { id: string; name: string; voiceType: VoiceTypeId };
  token: string;
  mayKeep: boolean;
  /** The coach's own voice on its phrases. */
  models: readonly Model[];
  onDone: (done: Omit<Done, 'kind'>, spoken: ShortRecording | null) => void;
  onLeave: () => void;
}) {
  const { t } = useLanguage();
  const phrases = useMemo(() => risksOf(song, voice, semitones), [song, voice, semitones]);
  const [at, setAt] = useState(0);
  const [on, setOn] = useState(false);
  const [withPiano, setWithPiano] = useState(false);
  const [keeping, setKeeping] = useState(false);
  const [problem, setProblem] = useState<Said | null>(null);
  const [listening, setListening] = useState(false);
  const [last, setLast] = useState<Try | null>(null);
  const [soFar, setSoFar] = useState<SoFar>(NOTHING);
  const [telling, setTelling] = useState(false);
  const along = useFollowAlong();
  const recorder = useRecorder(null, noFrames, async () => setProblem(t('The microphone went away: sing it again.')));
  /** Of the phrases that are sung, the one at which the piano waits; null: it doesn't. */
  const [waits, setWaits] = useState<number | null>(null);
  /** Of them, the one the piano began with (before it, its starting note). */
  const first = useRef(0);
  const begun = useRef(0);
  const finishNow = useRef<() => Promise<void>>(async () => {});
  const phrase = phrases[at];
  const until = on ? phrases.length - 1 : at;
  const sung = phrases.slice(at, until + 1);
  const part = useMemo(
    () => partOf(song, { first: phrase.first, firstBar: phrase.firstBar, last: phrases[until].last, lastBar: phrases[until].lastBar }),
    [song, phrase, phrases, until],
  );
  const way = ways[phrase.first] ?? null;
  const how = way && isHigh(song, phrase, voice, semitones) ? waysFor(song, phrase, voice, semitones).find((w) => w.way === way) : null;
  const modelled = (manner: Manner) =>
    simulatedPhrase({ song, phrase, semitones, way: how ? way : null }, { type: singer.voiceType, voice }, manner);
  const simulated = { 'like-this': modelled('like-this'), 'not-like-this': modelled('not-like-this') };
  const tempo = Math.round(part.tempi[0].tempo);
  const title = song.title;
  const recording = recorder.state === 'recording';
  useAwake(recording || along.sounding !== null);
  const busy = recorder.state === 'opening' || recorder.state === 'ending' || listening;

  /** The end of what was sung, to be heard back; kept on this phone where somebody agreed to recording. */
  const keep = async ({ recording: { wav } }: Finished): Promise<Try['own']> => {
    const { samples, sampleRate } = readWav(new Uint8Array(wav));
    const today = { day: dayKey(new Date()), sound: clipOf({ samples: samples.subarray(-MOST_HEARD_S * sampleRate), sampleRate }) };
    return { now: today, before: mayKeep ? await keepOwn(`song:${id}:${phrase.first}`, today) : null };
  };
  /** The piano neither sounds nor waits. */
  const hush = () => {
    along.stop();
    setWaits(null);
  };
  const finish = async () => {
    hush();
    const seconds = (now() - begun.current) / 1000;
    const finished = await recorder.stop();
    if (!finished) return;
    setListening(true);
    try {
      const { findings, trace, error } = (await finished.heard) ?? {};
      const heard =
        findings && trace ? await followOnDevice({ song, predicted: predictionOf(song, phrases), semitones }, { findings, trace }) : null;
      const outcome = heard?.outcome ?? null;
      if (!outcome)
        setProblem(
          error ??
            findings?.quality.reasons[0] ??
            t('That could not be laid over the song: sing a whole phrase, without the piano in the room.'),
        );
      else setLast({ outcome, sent: !finished.take.hereOnly, own: await keep(finished) });
      const load = trace ? loadOf(trace, null) : null;
      setSoFar((all) => ({
        seconds: all.seconds + seconds,
        load: load ? { voicedS: (all.load?.voicedS ?? 0) + load.voicedS, cycles: (all.load?.cycles ?? 0) + load.cycles } : all.load,
        went: outcome ? new Map([...all.went, ...wentIn(song, outcome, phrases, ways, voice)]) : all.went,
      }));
      if (!finished.take.hereOnly) void recorder.deliver(finished).catch(() => undefined);
    } catch (error) {
      setProblem(saidOf(error));
    } finally {
      recorder.close();
      setListening(false);
    }
  };
  useEffect(() => {
    finishNow.current = finish;
  });
  const sing = async () => {
    setProblem(null);
    setLast(null);
    hush();
    try {
      await recorder.start(
        {
          id: crypto.randomUUID(),
          singerId: singer.id,
          singerName: singer.name,
          task: 'free',
          asked: { slid: false },
          song: { id, semitones },
          vowel: '',
          colour: null,
          source: 'microphone',
          recordedAt: new Date().toISOString(),
          lessonId: null,
          step: `song: ${title}`.slice(0, 60),
          via: token,
          hereOnly: !(keeping && mayKeep),
        },
        (events) => openMicrophone(null, events),
      );
      begun.current = now();
      if (withPiano) playFrom(0, true, [startingNote(song, phrase, semitones)]);
    } catch (error) {
      setProblem(saidOf(error));
    }
  };
  const hear = () => (along.sounding ? along.stop() : playFrom(0, false));
  /** The piano, from one of the phrases that are sung on; whoever sings to it has sung when it is over. */
  const playFrom = (n: number, singing: boolean, before: KeyInTime[] = []) => {
    first.current = n - before.length;
    setWaits(null);
    void along.play('song', [...before, ...songInTime(song, sung.slice(n), semitones)], () => singing && void finishNow.current());
  };
  /** Which of the phrases sounds. */
  const sounds = () => Math.max(0, first.current + (along.sounding?.key ?? 0));
  const wait = () => {
    setWaits(sounds());
    along.stop();
  };

  if (telling) {
    const went = [...soFar.went.values()];
    return (
      <Report
        name={title}
        judged={null}
        straw={false}
        maySpeak={mayKeep}
        onTell={(told: Told, spoken) =>
          onDone(
            {
              exerciseId: `song:${id}`,
              name: title.slice(0, LONGEST_NAME),
              sound: 'words',
              tempo: Math.min(300, Math.max(20, tempo)),
              keys: [],
              seconds: soFar.seconds,
              load: soFar.load,
              success: went.includes(false) ? false : went.includes(true) ? true : null,
              ...told,
              byHand: false,
            },
            spoken,
          )
        }
      />
    );
  }
  return (
    <section className="flex flex-col gap-3" aria-label={title}>
      <div className="flex items-start gap-2">
        <h2 className="flex-1 text-2xl leading-tight font-bold">{title}</h2>
        <p className="text-right text-lg leading-tight">{t('in {key}', { key: saidKey(song, semitones) })}</p>
      </div>
      {note && <p className="text-lg">{note}</p>}
      <nav aria-label={t('Phrases')} className="flex flex-wrap gap-1">
        {phrases.map((p, i) => (
          <button
            key={p.first}
            aria-current={i === at}
            aria-label={t(barsName(song, p.firstBar, p.lastBar))}
            disabled={recording || busy}
            className={`min-h-11 min-w-11 rounded-lg border px-2 text-sm ${i === at ? 'border-accent bg-card font-bold' : 'border-line'}`}
            onClick={() => (setAt(i), setLast(null), hush())}
          >
            {song.bars[p.firstBar].number}–{song.bars[p.lastBar].number}
          </button>
        ))}
      </nav>
      <SongStaff song={part} semitones={semitones} voice={singer.voiceType} />
      {how && (
        <p>
          <b>{t(how.name)}</b>, {t(how.sounds)}. {t(how.dose)} {t(how.caution)}
        </p>
      )}
      <Tick checked={on} disabled={recording || busy} onChange={(all) => (setOn(all), setWaits(null))}>
        {t('On from here to the end')}
      </Tick>
      {(problem ?? along.problem) && <p role="alert">{t((problem ?? along.problem)!)}</p>}
      <Mirror />
      {(along.sounding || waits !== null) && (
        <div role="group" aria-label={t('The piano')} className="grid grid-cols-2 gap-2">
          {waits === null ? (
            <Ask words={t('Wait')} onAsk={wait} icon={<Pause aria-hidden />} />
          ) : (
            <Ask words={t('Go on')} onAsk={() => playFrom(waits, recording)} icon={<Play aria-hidden />} />
          )}
          <Ask words={t('Once more')} onAsk={() => playFrom(waits ?? sounds(), recording)} icon={<Repeat1 aria-hidden />} />
        </div>
      )}
      {recording ? (
        <button className="button-main min-h-16 text-xl" onClick={() => void finish()}>
          <Square aria-hidden /> {t('Enough')}
        </button>
      ) : (
        <>
          <div className="flex gap-2">
            <button className="button min-h-16 flex-1 text-lg" onClick={hear} disabled={busy}>
              {along.sounding ? <Square aria-hidden /> : <Play aria-hidden />} {along.sounding ? t('Stop') : t('Hear it')}
            </button>
            <button className="button-main min-h-16 flex-1 text-lg" onClick={() => void sing()} disabled={busy}>
              <Mic aria-hidden /> {listening ? t('Listening back …') : t('Sing it')}
            </button>
          </div>
          {!last && (
            <HearModels
              key={phrase.first}
              token={token}
              models={modelsOf(models, modelledPhrase(id, phrase.first, semitones), singer.id)}
              simulated={simulated}
            />
          )}
          {last && <Tried song={song} voice={voice} phrases={phrases} ways={ways} last={last} />}
          <Tick checked={withPiano} onChange={setWithPiano}>
            {t('With the piano, in headphones')}
          </Tick>
          {mayKeep && (
            <Tick checked={keeping} onChange={setKeeping}>
              {t('Send what I sing to my coach')}
            </Tick>
          )}
          <div className="flex gap-2">
            {soFar.seconds > 0 && (
              <button className="button-main min-h-12 flex-1" onClick={() => setTelling(true)} disabled={busy}>
                {t('That was it')}
              </button>
            )}
            <button className="button min-h-12 flex-1" onClick={onLeave}>
              {t('Back to today')}
            </button>
          </div>
        </>
      )}
    </section>
  );
}

/** What was heard in the last try: what broke, and whether high phrases were taken as they are meant; and the singer's own voice. */
function Tried({
  song,
  voice,
  phrases,
  ways,
  last: { outcome, sent, own },
}: Pick<MySong, 'song' | 'ways'> & { voice: SongVoice; phrases: ReturnType<typeof risksOf>; last: Try }) {
  const { t } = useLanguage();
  const broke = outcome.bars.filter((b) => b.broke);
  const untold = outcome.bars.filter((b) => b.untold);
  const taken = phrases.flatMap((p) => {
    const said = ways[p.first] && takenAs(song, outcome, p, ways[p.first], voice);
    return said ? [{ ...said, p }] : [];
  });
  return (
    <div className="card flex flex-col gap-2 p-3" data-testid="tried">
      {broke.length === 0 && outcome.bars.some((b) => b.sung && !b.untold) && <p className="text-lg">{t('Nothing broke.')}</p>}
      {broke.map((b) => (
        <p key={b.bar} className="text-lg">
          <b className="inline-block first-letter:uppercase">{t(barName(song, b.bar))}</b>:{' '}
          {t(breakInWords(b.broke!, namesFlats(song, outcome.semitones)))}.
        </p>
      ))}
      {untold.map((b) => (
        <p key={b.bar}>
          <span className="inline-block first-letter:uppercase">{t(barName(song, b.bar))}</span>: {t(UNTOLD)}.
        </p>
      ))}
      {taken.map(({ p, verdict, because }) => (
        <p key={p.first}>
          {t(barsName(song, p.firstBar, p.lastBar))}: {t(VERDICT_WORDS[verdict])} {verdict === 'yes' ? `(${t(because)})` : t(because)}.
        </p>
      ))}
      <HearYourself {...own} sent={sent} words={t('Hear it back')} />
    </div>
  );
}
