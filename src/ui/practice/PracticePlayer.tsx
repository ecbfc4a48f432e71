'use client';
import { exerciseHow, exerciseName } from '../../core/exercise/of-song';
import { Mic, MicOff, Play } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { openMicrophone } from '../../audio/input';
import { inVoice } from '../../core/exercise/keys';
import { patternSpan } from '../../core/exercise/pattern';
import type { Accompaniment } from '../../core/exercise/follow-along';
import { renderKey } from '../../core/exercise/render';
import type { Exercise } from '../../core/exercise/types';
import { taskOf } from '../../core/judge/hear';
import { keyInTune } from '../../core/judge/key-in-tune';
import type { KnownVoice } from '../../core/judge/types';
import { type Manner, type Model } from '../../core/exercise/model';
import { readWav } from '../../core/format/wav';
import { howSoftIn } from '../../core/exercise/how-soft';
import type { Ceiling, FindingName } from '../../core/map/types';
import { simulatedModel } from '../../core/sim/model';
import { clipOf } from '../../audio/clip';
import { useSpeech } from '../../audio/speak';
import { keepOwn, type OwnKey } from '../../sync/own-voice';
import { dayKey } from '../plan/days';
import type { PlanItem } from '../../core/plan/types';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import { beltedFrom } from '../../core/practice/belt';
import { loadOf } from '../../core/practice/load';
import { asKept, Done, Judged, Load, successOf } from '../../core/practice/types';
import { HOP_S } from '../../core/voice/types';
import { useAwake } from '../kit/useAwake';
import { useStored } from '../kit/useStored';
import { useRecorder } from '../listen/useRecorder';
import type { ShortRecording } from '../listen/useShortRecording';
import { Staff } from '../staff/Staff';
import { AlongControls, AlongKeys } from './AlongControls';
import { HearModels } from './HearModels';
import { HearYourself } from './HearYourself';
import { Mirror } from './Mirror';
import { Report, type Told } from './Report';
import { ChooseAccompaniment } from '../exercises/ChooseAccompaniment';
import { Stepper } from './Stepper';
import { Tick } from './Tick';
import { Moment, TargetCanvas } from './TargetCanvas';
import { Begun, useWalk } from './useWalk';
import { useLanguage } from '../language/language';
import { texts } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

const TEMPO_STEP = 4;
const TEMPO_REACH = 24;
const noFrames = () => {};
const now = () => performance.now();

/** Heard back from a moment before the key until its breath. */
const BEFORE_KEY_S = 0.1;

interface Result {
  seconds: number;
  keys: number[];
  load: Load | null;
  judged?: Judged;
}

/** The singer's own last key, beside an earlier day's. */
interface Own {
  now: OwnKey;
  before: OwnKey | null;
}

/**
 * One exercise, followed along key by key without a hand: piano, what is meant and, when the phone may listen, what is sung over
 * it; then a rest as long as it was sung, and how it was.
 */
export function PracticePlayer({
  item,
  exercise,
  voice,
  singer,
  token,
  mayKeep,
  known,
  findings,
  models,
  limits,
  ceiling,
  listening,
  onListen,
  onDone,
  onLeave,
}: {
  item: PlanItem;
  exercise: Exercise;
  voice: VoiceTypeId;
  singer: { id: string; name: string };
  token: string;
  /** Whether recordings may be kept for the coach (consent was given). */
  mayKeep: boolean;
  /** Where the singer's change lies, for what is heard. */
  known: KnownVoice;
  /** What the map finds in this voice, surest first. */
  findings: readonly FindingName[];
  /** The coach's own voice on this exercise. */
  models: Partial<Record<Manner, Model>>;
  /** The lowest and highest note that may be sung; null: not known. */
  limits: { low: number; high: number } | null;
  /** How loud the voice stays joined, where that was tried. */
  ceiling: Ceiling | undefined;
  /** Whether the phone listens: asked once, not for each exercise. */
  listening: boolean;
  onListen: (listening: boolean) => void;
  onDone: (done: Omit<Done, 'kind'>, spoken: ShortRecording | null) => void;
  onLeave: () => void;
}) {
  const { keyNote, t } = useLanguage();
  const [tempo, setTempo] = useState(item.tempo);
  const [octave, setOctave] = useState(0);
  const [keeping, setKeeping] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const [result, setResult] = useState<Result | null>(null);
  const [own, setOwn] = useState<Own | null>(null);
  /** Of each key, whether it was in tune when it was last sung. */
  const [tune, setTune] = useState<ReadonlyMap<number, boolean | null>>(new Map());
  const [accompaniment, setAccompaniment] = useStored<Accompaniment>('wendel-accompaniment', 'notes');
  const [headphones, setHeadphones] = useStored<'yes' | 'no'>('wendel-headphones', 'no');
  /** Out of a loudspeaker the piano would be heard along with the voice, and judged with it. */
  const alone = listening && headphones === 'no';
  const speech = useSpeech();
  const [cuesAloud, setCuesAloud] = useStored<'yes' | 'no'>('wendel-cues-aloud', 'no');
  /** What the coach says before key `n`, aloud in the breath after the key before. */
  const say = (n: number, atMs: number) => {
    if (item.cues && cuesAloud === 'yes' && speech.can && !alone) speech.sayAt(item.cues[n % item.cues.length], atMs);
  };
  const recorder = useRecorder(null, noFrames, async () => setProblem(t('The microphone went away; the exercise goes on without it.')));
  const moment = useRef<Moment | null>(null);
  const at = useRef<number | null>(null);
  const takeAt = useRef<number | null>(null);
  const throughWater = exercise.needs.includes('straw');
  const keys = item.keys.map((k) => k + 12 * octave);
  const span = patternSpan(exercise);
  const soft = howSoftIn(ceiling, exercise, keys);
  /** Whether every key another octave away stays in the voice. */
  const mayMove = (by: 1 | -1) => !limits || item.keys.every((k) => inVoice(span, k + 12 * (octave + by), limits));
  const middle = keys[Math.floor((keys.length - 1) / 2)];
  const modelled = (manner: Manner) =>
    simulatedModel({ exercise, key: middle, tempo, sound: item.sound }, { type: voice, changeMidi: known.changeMidi, findings }, manner);
  const simulated = { 'like-this': modelled('like-this'), 'not-like-this': modelled('not-like-this') };

  /** The key that sounded is over: was it in tune? */
  const keyOver = () => {
    const [of, key] = [moment.current, at.current];
    if (!of || key === null) return;
    const firstFrame = of.takeMs === null ? null : Math.round((of.sinceMs - of.takeMs) / 1000 / HOP_S);
    const inTune = firstFrame === null ? null : keyInTune(recorder.live.current.midi, firstFrame, of.key);
    setTune((all) => new Map(all).set(key, inTune));
  };
  const along = useWalk({
    id: exercise.id,
    render: (tonic) => renderKey(exercise, tonic, tempo),
    minutes: item.minutes,
    accompaniment: alone ? 'chord' : accompaniment,
    onKey: (begun: Begun) => {
      keyOver();
      if (!begun.last) say(begun.count, begun.beginsMs + 1000 * (begun.key.notes.at(-1)?.endS ?? 0));
      at.current = begun.at;
      moment.current = {
        key: begun.key,
        sinceMs: begun.beginsMs,
        takeMs: takeAt.current === null ? null : takeAt.current + begun.pausedMs,
      };
    },
    onPause: (on) => {
      recorder.hold(on);
      if (on) speech.hush();
      if (on && moment.current) moment.current = { ...moment.current, cutMs: now() };
    },
    onOver: () => void finish(),
    onFail: () => {
      recorder.drop();
      recorder.close();
    },
  });
  const { shown } = along;
  useAwake(shown !== null);

  const finish = async () => {
    keyOver();
    const last = moment.current;
    const began = takeAt.current;
    const { sung, playedS } = along.stop();
    speech.hush();
    moment.current = at.current = takeAt.current = null;
    const against =
      began === null
        ? null
        : {
            asked: {
              exercise,
              sound: item.sound,
              keys: sung.map((key) => key.tonic),
              startsS: sung.map((key) => (key.beganMs - began) / 1000),
              tempo,
            },
            voice: known,
          };
    const finished = await recorder.stop(against);
    let load: Load | null = null;
    let judged: Judged | undefined;
    const heard = await finished?.heard;
    if (heard?.trace) load = loadOf(heard.trace, beltedFrom(exercise, known.changeMidi));
    if (heard?.judgement) judged = asKept(heard.judgement);
    if (finished && finished.recording.durationS > 0 && last && last.takeMs !== null) {
      const { samples, sampleRate } = readWav(new Uint8Array(finished.recording.wav));
      const fromS = Math.max(0, (last.sinceMs - last.takeMs) / 1000 + last.key.chordS - BEFORE_KEY_S);
      const sound = clipOf({ samples: samples.subarray(Math.round(fromS * sampleRate)), sampleRate });
      const now = { day: dayKey(new Date()), sound };
      // Without anybody's word for recording it is heard once and gone.
      setOwn({ now, before: mayKeep ? await keepOwn(exercise.id, now) : null });
    }
    if (finished && !finished.take.hereOnly) void recorder.deliver(finished).catch(() => undefined);
    recorder.close();
    setResult({ seconds: playedS, keys: sung.map((key) => key.tonic), load, judged });
  };

  const play = async () => {
    setProblem(null);
    setTune(new Map());
    if (listening) {
      try {
        await recorder.start(
          {
            id: crypto.randomUUID(),
            singerId: singer.id,
            singerName: singer.name,
            ...taskOf({ exercise, keys }),
            vowel: '',
            colour: null,
            source: 'microphone',
            recordedAt: new Date().toISOString(),
            lessonId: null,
            step: `practice: ${exercise.name}`.slice(0, 60),
            via: token,
            hereOnly: !(keeping && mayKeep),
          },
          (events) => openMicrophone(null, events),
        );
        takeAt.current = now();
      } catch (error) {
        onListen(false);
        setProblem(t('{problem} The exercise plays without it.', { problem: saidOf(error) }));
      }
    }
    say(0, now());
    along.play(keys);
  };

  if (result)
    return (
      <div className="flex flex-col gap-3">
        <Rest seconds={Math.min(60, result.seconds)} />
        <Report
          name={t(exerciseName(exercise))}
          judged={result.judged ?? null}
          straw={throughWater}
          maySpeak={mayKeep}
          onTell={(told: Told, spoken) =>
            onDone(
              {
                exerciseId: exercise.id,
                name: exercise.name,
                sound: item.sound,
                tempo,
                ...result,
                success: result.judged ? successOf(result.judged.verdict) : null,
                ...told,
                byHand: false,
              },
              spoken,
            )
          }
        >
          {own && <HearYourself {...own} sent={keeping && mayKeep} />}
        </Report>
      </div>
    );

  const tonic = keys[shown?.at ?? 0];
  return (
    <section className="flex flex-col gap-3" aria-label={t(exerciseName(exercise))}>
      <div className="flex items-start gap-2">
        <h2 className="flex-1 text-2xl leading-tight font-bold">{t(exerciseName(exercise))}</h2>
        <p className="text-right text-4xl leading-none font-bold" aria-live="polite" data-testid="key">
          {keyNote(tonic)}
        </p>
      </div>
      <p className="text-lg">{t('On “{sound}”. {how}', { sound: item.sound, how: exerciseHow(exercise) })}</p>
      {item.straws && <p className="font-semibold">{t(item.straws)}</p>}
      {!shown && <p className="text-sm text-soft">{t(throughWater ? STRAW_REMINDER : BREATH_REMINDER)}</p>}
      {throughWater && (
        <p className="text-sm text-soft">{t('Through a straw only pitch and steadiness can be heard; colour is not judged.')}</p>
      )}
      {!shown && <HearModels token={token} models={models} simulated={simulated} />}
      <Staff exercise={exercise} tonic={tonic} voice={voice} leaning={{ sound: item.sound, changeMidi: known.changeMidi }} />
      {shown && item.cues && (
        <p className="text-center text-2xl font-bold text-coach" aria-live="polite" data-testid="cue">
          {item.cues[Math.max(0, shown.count - 1) % item.cues.length]}
        </p>
      )}
      <TargetCanvas moment={moment} live={recorder.live} exercise={exercise} />
      <AlongKeys keys={keys} at={shown?.at ?? null} tune={tune} onGo={along.go} />
      {(problem ?? along.problem) && <p role="alert">{t((problem ?? along.problem)!)}</p>}
      <Mirror />
      {shown ? (
        <AlongControls along={along} shown={shown} onEnough={() => void finish()} />
      ) : (
        <>
          <button className="button-main min-h-16 text-xl" onClick={() => void play()} disabled={recorder.state !== 'idle'}>
            <Play aria-hidden /> {recorder.state === 'ending' ? t('Listening back …') : t('Begin')}
          </button>
          <div className="flex gap-2">
            <Stepper
              label={t('Tempo')}
              value={String(tempo)}
              less={tempo > exercise.tempo[0] - TEMPO_REACH ? () => setTempo(tempo - TEMPO_STEP) : null}
              more={tempo < exercise.tempo[2] + TEMPO_REACH ? () => setTempo(tempo + TEMPO_STEP) : null}
            />
            <Stepper
              label={t('Octave')}
              value={octave === 0 ? t('as written') : octave > 0 ? t('up') : t('down')}
              less={octave > -1 && mayMove(-1) ? () => setOctave(octave - 1) : null}
              more={octave < 1 && mayMove(1) ? () => setOctave(octave + 1) : null}
            />
          </div>
          {alone ? (
            <p>{t('The piano gives the chord and is still while you sing, so that the phone hears you alone.')}</p>
          ) : (
            <ChooseAccompaniment chosen={accompaniment} onChoose={setAccompaniment} />
          )}
          <button
            aria-pressed={listening}
            className={`button min-h-14 ${listening ? 'border-accent' : ''}`}
            onClick={() => onListen(!listening)}
          >
            {listening ? <Mic aria-hidden /> : <MicOff aria-hidden />} {listening ? t('The phone listens') : t('Let the phone listen')}
          </button>
          {listening && (
            <Tick checked={headphones === 'yes'} onChange={(on) => setHeadphones(on ? 'yes' : 'no')}>
              {t('I wear headphones: the piano may play along')}
            </Tick>
          )}
          {item.cues && speech.can && !alone && (
            <Tick checked={cuesAloud === 'yes'} onChange={(on) => setCuesAloud(on ? 'yes' : 'no')}>
              {t('Say my coach’s words aloud between the keys')}
            </Tick>
          )}
          {listening && mayKeep && (
            <Tick checked={keeping} onChange={setKeeping}>
              {t('Send the recording to my coach')}
            </Tick>
          )}
          <p className="text-sm font-semibold">
            {t(item.caution)} {soft && t(soft)}
          </p>
          <button className="button min-h-12" onClick={onLeave}>
            {t('Back to today')}
          </button>
        </>
      )}
    </section>
  );
}

/** Said before an exercise begins (common practice, no source). */
const BREATH_REMINDER = texts('Breathe low and easy before each key; loose jaw, loose neck; only as loud as it stays connected.');
const STRAW_REMINDER = texts(
  'Your own clean straw. No air beside it, at the lips or the nose; lighter than singing, never loud. Stop if you feel dizzy.',
);

/** Rest as long as was sung: counts down by itself, and doesn't hold anybody. */
function Rest({ seconds }: { seconds: number }) {
  const { t } = useLanguage();
  const [left, setLeft] = useState(Math.round(seconds));
  useEffect(() => {
    const timer = setInterval(() => setLeft((s) => Math.max(0, s - 1)), 1000);
    return () => clearInterval(timer);
  }, []);
  return (
    <p className="text-center text-lg" role="timer">
      {left > 0 ? t('Rest: {left} s. Breathe, drink, let the jaw hang.', { left }) : t('Rested.')}
    </p>
  );
}
