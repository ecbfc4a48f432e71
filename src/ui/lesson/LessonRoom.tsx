'use client';
import { ChevronLeft, ChevronRight, FastForward, Hand, Mic, Music, Pause, RotateCcw, Square, StepForward } from 'lucide-react';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useFollowAlong } from '../../audio/follow-along';
import type { Live } from '../../audio/input';
import { onSent } from '../../audio/outbox';
import { useTakePlayer } from '../../audio/take-player';
import { renderKey } from '../../core/exercise/render';
import { asksHealth, askOf, isOver } from '../../core/lesson/course';
import { paceOf } from '../../core/lesson/pace';
import { notesAsked, patternSteps } from '../../core/lesson/pattern';
import { createTakeEnd } from '../../core/lesson/take-end';
import type { Ask, Course, LessonAction } from '../../core/lesson/types';
import type { CoachMark, VoiceMap } from '../../core/map/types';
import { noteName } from '../../core/music/pitch';
import { VoiceTypeId } from '../../core/plan/voice-types';
import { HOP_S } from '../../core/voice/types';
import type { TimbreAxis } from '../../core/take/timbre';
import type { CrossingStyle } from '../../core/sim/profile';
import { Choice } from '../kit/Choice';
import { Notice } from '../kit/Notice';
import { useNarrow } from '../kit/useNarrow';
import { useStored } from '../kit/useStored';
import { useLadderScale } from '../ladder/useLadderScale';
import type { LiveStore } from '../take/LiveTrace';
import { LevelMeter } from '../listen/LevelMeter';
import { LevelSetting } from '../listen/LevelSetting';
import { LiveNote } from '../listen/LiveNote';
import { MicrophoneChoice } from '../listen/MicrophoneChoice';
import { analysed, discardTake } from '../listen/save-take';
import { openSource, SOURCES } from '../listen/sources';
import { KeyRung, Stage } from '../listen/Stage';
import { Unsent } from '../listen/Unsent';
import { Finished, useRecorder } from '../listen/useRecorder';
import { COLOUR_WORDS, STYLE_WORDS, VOWELS } from '../listen/what-to-sing';
import { Staff } from '../staff/Staff';
import { HealthQuestions } from './HealthQuestions';
import { LessonOver } from './LessonOver';
import { Made, MadeTakes } from './MadeTakes';
import { simulatedAsk } from './sim-ask';
import { StepStrip } from './StepStrip';
import { useCourse } from './useCourse';

const HEIGHT = 470;
/** Upright on a tablet all of it still fits the screen. */
const NARROW_HEIGHT = 380;
/** The last note of the piano has died away by then. */
const AFTER_PIANO_S = 0.15;
const BREATH_BEATS = 2;
const COUNT_IN_BEATS = 4;
/** Between a take and the next key's piano or recording: time for a breath. */
const BREATH_MS = 500;
/** Less singing than this is none. */
const LEAST_SUNG_S = 0.3;

type Reference = 'pattern' | 'chord' | 'count' | 'none';
const REFERENCES: readonly (readonly [Reference, string])[] = [
  ['pattern', 'plays the pattern'],
  ['chord', 'gives the chord'],
  ['count', 'counts in only'],
  ['none', 'is silent'],
];
const PACE_WORDS = { lingers: 'Keep moving: the low notes use up the breath.', rushes: 'A little slower through the change.' };

interface Props {
  singer: { id: string; name: string; voiceType: VoiceTypeId; intake: { health: string } | null; axis: TimbreAxis | null };
  map: VoiceMap;
  lesson: { id: string; name: string; course: Course; note: string };
}

const nameOf = (ask: Ask) =>
  [
    ask.step.name,
    ask.colour && COLOUR_WORDS.find(([c]) => c === ask.colour)?.[1],
    ask.tonicMidi !== null && !ask.step.colours ? `in ${noteName(ask.tonicMidi)}` : ask.of !== null && ask.of > 1 && `${ask.number}`,
  ]
    .filter(Boolean)
    .join(' ');

/** A guided lesson: what to sing now, the voice as it sings, and what was found, take after take. */
export function LessonRoom({ singer, map, lesson }: Props) {
  const router = useRouter();
  const { course, present, act, undo, redo } = useCourse(lesson.id, lesson.course);
  const ask = useMemo(() => askOf(course), [course]);
  const [reference, setReference] = useStored<Reference>('wendel-reference', 'pattern');
  const [source, setSource] = useStored<'microphone' | 'simulated'>('wendel-lesson-source', 'microphone');
  const [style, setStyle] = useState<CrossingStyle>('flip');
  const [made, setMade] = useState<Made[]>([]);
  const [marks, setMarks] = useState<CoachMark[]>([]);
  const [problem, setProblem] = useState<string | null>(null);
  /** Whether the lesson goes on by itself from take to take of a step. */
  const [running, setRunning] = useState(false);
  const piano = useFollowAlong();
  const player = useTakePlayer();
  const pace = useRef<HTMLParagraphElement | null>(null);
  const takeEnd = useRef<{ push(frames: Live['frames']): boolean } | null>(null);
  const finishNow = useRef<(byItself: boolean) => Promise<void>>(async () => {});
  const breath = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  const onFrames = useCallback(
    ({ frames }: Live, { midi }: LiveStore) => {
      if (pace.current && askOf(present.current)?.step.task === 'siren') {
        const hint = paceOf(midi, course.voice.low, course.voice.change);
        const words = hint ? PACE_WORDS[hint] : '';
        if (pace.current.textContent !== words) pace.current.textContent = words;
      }
      if (takeEnd.current?.push(frames)) {
        takeEnd.current = null;
        void finishNow.current(true);
      }
    },
    [course.voice, present],
  );
  const recorder = useRecorder(singer.axis, onFrames, () => {
    setProblem('The microphone went away. What was recorded so far is kept: plug it in again and press Space.');
    return finishNow.current(false);
  });
  const { state, close, deliver } = recorder;
  const playing = piano.sounding !== null;

  const change = useCallback((id: string, to: Partial<Made>) => setMade((all) => all.map((m) => (m.id === id ? { ...m, ...to } : m))), []);

  /** Fetch what was found in a take that is on the server. */
  const listen = useCallback(
    async (id: string) => {
      change(id, { state: 'listening' });
      try {
        change(id, { state: 'found', stored: await analysed(id) });
      } catch {
        change(id, { state: 'failed' });
      }
    },
    [change],
  );

  const send = useCallback(
    async (finished: Finished) => {
      const { id } = finished.take;
      void finished.heard?.then((analysis) => change(id, { stored: { take: { id, durationS: finished.recording.durationS }, analysis } }));
      try {
        await deliver(finished);
        await listen(finished.take.id);
      } catch {
        change(finished.take.id, { state: 'waiting' });
      }
    },
    [change, deliver, listen],
  );
  // What waited and was sent by itself later.
  useEffect(
    () =>
      onSent((id) =>
        setMade((all) => {
          if (all.some((m) => m.id === id && m.state === 'waiting')) void listen(id);
          return all;
        }),
      ),
    [listen],
  );

  const record = useCallback(async () => {
    const now = askOf(present.current);
    if (!now) return;
    setProblem(null);
    setMarks([]);
    player.stop();
    takeEnd.current = createTakeEnd(now);
    if (source === 'simulated') close();
    try {
      await recorder.start(
        {
          id: crypto.randomUUID(),
          singerId: singer.id,
          singerName: singer.name,
          task: now.step.task,
          vowel: now.vowel,
          colour: now.colour,
          source,
          recordedAt: new Date().toISOString(),
          lessonId: lesson.id,
          step: nameOf(now),
          asked:
            now.step.task === 'scale' && now.step.degrees && now.tonicMidi !== null
              ? { degrees: now.step.degrees, tonicMidi: now.tonicMidi }
              : null,
        },
        (events) =>
          openSource(source, events, {
            type: singer.voiceType,
            style,
            task: (low) => simulatedAsk(now, low),
            vowel: now.vowel,
            onEnd: () => void finishNow.current(true),
          }),
      );
    } catch (error) {
      setRunning(false);
      setProblem((error as Error).message);
    }
  }, [close, lesson.id, player, present, recorder, singer, source, style]);

  /** The piano first, where it is wanted and the step has a key; then the take. */
  const go = useCallback(() => {
    clearTimeout(breath.current);
    const now = askOf(present.current);
    if (!now) return;
    setRunning(true);
    if (reference === 'none' || now.tonicMidi === null || !now.step.degrees) return void record();
    const { tempo } = now.step;
    if (reference === 'count') return void piano.countIn('reference', COUNT_IN_BEATS, tempo, () => void record());
    const key = renderKey({ steps: patternSteps(now.step) }, now.tonicMidi, tempo);
    const chordOnly = { ...key, notes: [], totalS: key.chordS };
    const pattern = { ...key, totalS: key.totalS - (BREATH_BEATS * 60) / tempo + AFTER_PIANO_S };
    void piano.play('reference', [reference === 'chord' ? chordOnly : pattern], () => void record());
  }, [piano, present, record, reference]);
  const goNow = useRef(go);

  /** End the take under way: it goes off to the server, and the lesson goes on. */
  const finish = useCallback(
    async (byItself: boolean, action: LessonAction = { kind: 'taken' }) => {
      takeEnd.current = null;
      const finished = await recorder.stop();
      if (!finished) return;
      if (source === 'simulated') close();
      if (pace.current) pace.current.textContent = '';
      setMade((all) => [...all, { id: finished.take.id, name: finished.take.step, state: 'sending', stored: null }]);
      void send(finished);
      const before = present.current;
      const next = act(action);
      // From take to take of a step by itself; a new step waits for the coach.
      if ((byItself || action.kind === 'stop') && next.at === before.at && !isOver(next))
        breath.current = setTimeout(() => goNow.current(), BREATH_MS);
      else setRunning(false);
    },
    [act, close, present, recorder, send, source],
  );
  useEffect(() => {
    goNow.current = go;
    finishNow.current = finish;
  });

  /** Stop whatever sounds or is about to; a take under way is given up. */
  const halt = useCallback(() => {
    clearTimeout(breath.current);
    piano.stop();
    recorder.drop();
    takeEnd.current = null;
    setRunning(false);
  }, [piano, recorder]);
  useEffect(() => () => clearTimeout(breath.current), []);

  const main = useCallback(() => {
    if (state === 'recording') void finish(false);
    else if (playing || running) halt();
    else if (state === 'idle') go();
  }, [finish, go, halt, playing, running, state]);
  const step = useCallback(
    (action: LessonAction) => {
      halt();
      act(action);
    },
    [act, halt],
  );
  const enough = useCallback(() => {
    const sung = recorder.live.current.midi.reduce((n, m) => n + (m > 0 ? 1 : 0), 0) * HOP_S;
    if (state === 'recording' && sung >= LEAST_SUNG_S) return void finish(true, { kind: 'stop' });
    // The next key was open already and nobody has sung it.
    const wasRunning = running;
    step({ kind: 'stop' });
    if (wasRunning && askOf(present.current)?.confirms) {
      setRunning(true);
      breath.current = setTimeout(() => goNow.current(), BREATH_MS);
    }
  }, [finish, present, recorder.live, running, state, step]);
  const repeat = useCallback(() => {
    const wasTaking = state === 'recording' || playing;
    halt();
    // What was just sung, once more.
    if (!wasTaking && present.current.count > 0) act({ kind: 'back' });
    breath.current = setTimeout(() => goNow.current(), 0);
  }, [act, halt, playing, present, state]);
  const nextVowel = useCallback(() => {
    const now = askOf(present.current);
    if (!now || !now.vowel) return;
    const at = VOWELS.indexOf(now.vowel as (typeof VOWELS)[number]);
    act({ kind: 'vowel', vowel: VOWELS[(at + 1) % VOWELS.length] });
  }, [act, present]);
  const mark = useCallback(
    (by: CoachMark['by']) => {
      const m = recorder.mark(by);
      if (m) setMarks((all) => [...all, m]);
    },
    [recorder],
  );

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement;
      if (['SELECT', 'INPUT', 'TEXTAREA'].includes(target.tagName) || event.altKey) return;
      const onButton = target.tagName === 'BUTTON' || target.tagName === 'A' || target.tagName === 'SUMMARY';
      const command = event.ctrlKey || event.metaKey;
      const key = event.key.length === 1 ? event.key.toLowerCase() : event.key;
      const acts: Record<string, (() => void) | null> = command
        ? { z: event.shiftKey ? redo : undo, y: redo }
        : {
            ' ': onButton ? null : main,
            ArrowRight: () => step({ kind: 'next' }),
            ArrowLeft: () => step({ kind: 'back' }),
            r: repeat,
            s: () => step({ kind: 'skip' }),
            h: () => act({ kind: 'hold' }),
            v: nextVowel,
            t: enough,
            m: () => mark('coach'),
            n: () => mark('singer'),
            Escape: halt,
          };
      const action = acts[key];
      if (!action || event.repeat) return;
      event.preventDefault();
      action();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [act, enough, halt, main, mark, nextVowel, redo, repeat, step, undo]);

  const asked = ask && notesAsked(ask);
  const scale = useLadderScale(map, singer.voiceType, useNarrow() ? NARROW_HEIGHT : HEIGHT, {
    lowestMidi: Math.min(course.voice.low - 3, asked?.lowest ?? Infinity),
    highestMidi: Math.max(course.voice.high + 3, asked?.highest ?? 0),
  });
  const keys = useMemo(() => keysOf(course), [course]);

  if (asksHealth(course))
    return <HealthQuestions told={singer.intake?.health ?? ''} onAnswer={(answers) => act({ kind: 'health', answers })} />;
  if (isOver(course) || !ask)
    return (
      <LessonOver singer={singer} lesson={lesson} course={course} made={made} onBack={() => act({ kind: 'back' })}>
        <Unsent takes={recorder.unsent} onTryAgain={(u) => void send(u)} />
      </LessonOver>
    );

  const busy = state === 'opening' || state === 'ending';
  return (
    <div className="flex flex-col gap-3">
      <StepStrip course={course} onGo={(to) => step({ kind: 'go', step: to })} />
      <div className="grid gap-x-4 gap-y-3 lg:grid-cols-[1fr_24rem] lg:grid-rows-[auto_1fr]">
        <div className="min-w-0 lg:col-start-2 lg:row-start-1">
          <div aria-live="polite">
            <h2 className="text-[40px] leading-tight font-bold" data-testid="ask">
              {ask.step.name}
              {ask.vowel && ` on “${ask.vowel}”`}
            </h2>
            <p className="text-2xl font-semibold" data-testid="ask-key">
              {[
                ask.tonicMidi !== null && `from ${noteName(asked!.lowest === ask.tonicMidi ? ask.tonicMidi : asked!.lowest)}`,
                ask.colour && COLOUR_WORDS.find(([c]) => c === ask.colour)![1],
                ask.confirms ? 'once more, to be sure' : ask.of && ask.of > 1 ? `${ask.number} of ${ask.of}` : null,
                course.held && 'held',
              ]
                .filter(Boolean)
                .join(' · ')}
            </p>
            <p className="mt-1 text-soft">{ask.step.how}</p>
          </div>
          {ask.tonicMidi !== null && ask.step.degrees && (
            <Staff exercise={{ name: ask.step.name, steps: patternSteps(ask.step) }} tonic={ask.tonicMidi} />
          )}
        </div>
        <section
          aria-label="What is sung, beside the ladder"
          className="flex min-w-0 flex-col gap-2 lg:col-start-1 lg:row-span-2 lg:row-start-1"
        >
          <Stage scale={scale} map={map} live={recorder.live} keys={keys} marks={marks} pace={pace} />
          <div className="flex flex-wrap gap-1">
            <Key label="Back" hint="←" onClick={() => step({ kind: 'back' })} icon={ChevronLeft} />
            <Key label="Repeat" hint="R" onClick={repeat} icon={RotateCcw} />
            <Key label="Next" hint="→" onClick={() => step({ kind: 'next' })} icon={ChevronRight} />
            {ask.step.keys && <Key label="Hold key" hint="H" onClick={() => act({ kind: 'hold' })} icon={Hand} on={course.held} />}
            {ask.step.keys?.until === 'stop' && !ask.confirms && <Key label="That’s enough" hint="T" onClick={enough} icon={Square} />}
            <Key label="Skip step" hint="S" onClick={() => step({ kind: 'skip' })} icon={FastForward} />
            <Key label="I hear it" hint="M" onClick={() => mark('coach')} disabled={state !== 'recording'} />
            <Key label="Singer feels it" hint="N" onClick={() => mark('singer')} disabled={state !== 'recording'} />
          </div>
        </section>
        <aside className="flex min-w-0 flex-col gap-3 lg:col-start-2 lg:row-start-2">
          <LiveNote store={recorder.live} />
          <LevelMeter store={recorder.meter} paused={false} source={source} />
          <button className="button-main min-h-16 text-xl" onClick={main} disabled={busy} title="Space">
            {state === 'recording' ? (
              <Square aria-hidden />
            ) : playing ? (
              <Music aria-hidden />
            ) : running ? (
              <Pause aria-hidden />
            ) : course.count > 0 ? (
              <StepForward aria-hidden />
            ) : (
              <Mic aria-hidden />
            )}
            {state === 'recording'
              ? 'Stop'
              : playing
                ? 'The piano gives it …'
                : busy || running
                  ? 'A breath …'
                  : course.count > 0
                    ? 'Go on'
                    : 'Start'}
          </button>
          {problem && <Notice>{problem}</Notice>}
          {piano.problem && <Notice>{piano.problem}</Notice>}
          {recorder.warning && <Notice>{recorder.warning}</Notice>}
          <Unsent takes={recorder.unsent} onTryAgain={(u) => void send(u)} />
          <div className="max-h-44 overflow-y-auto">
            <MadeTakes
              made={made}
              singerId={singer.id}
              onPlay={(id) => (player.playing ? player.stop() : player.play(id, 0))}
              onDiscard={(id) =>
                void discardTake(id).then(
                  () => (setMade((all) => all.filter((m) => m.id !== id)), router.refresh()),
                  (error: Error) => setProblem(error.message),
                )
              }
            />
          </div>
          <details>
            <summary className="min-h-11 cursor-pointer content-center font-semibold">Piano, microphone and keys</summary>
            <div className="grid grid-cols-2 gap-2">
              <Choice label="The piano" value={reference} options={REFERENCES} onChange={setReference} />
              <Choice
                label="Listen to"
                value={source}
                options={SOURCES.filter((s): s is ['microphone' | 'simulated', string] => s[0] !== 'file')}
                onChange={(next) => {
                  halt();
                  close();
                  setSource(next);
                }}
              />
              {source === 'simulated' && <Choice label="A voice that" value={style} options={STYLE_WORDS} onChange={setStyle} />}
              {source === 'microphone' && <MicrophoneChoice onChange={close} disabled={state !== 'idle'} />}
            </div>
            <LevelSetting source={source} />
            <p className="mt-2 text-sm text-soft">
              Space starts and stops. V changes the vowel, Esc gives a take up, Ctrl+Z takes a step back and Ctrl+Y forward again.{' '}
              <Link className="underline" href={`/singers/${singer.id}/listen`}>
                A free take
              </Link>{' '}
              is possible at any moment; the lesson waits.
            </p>
          </details>
        </aside>
      </div>
    </div>
  );
}

/** The keys of the step on the ladder: those passed, and the one in hand. */
function keysOf(course: Course): KeyRung[] {
  const ask = askOf(course);
  const now = ask && notesAsked(ask);
  if (!ask || !now || !ask.step.keys) return [];
  const passed = course.confirming ? course.count + 1 : course.count;
  const walk = ask.step.keys.step;
  const first = course.confirming ? Math.sign(walk) : -walk;
  const done = Array.from({ length: Math.min(passed, 24) }, (_, i) => {
    const by = first - i * walk;
    return { lowest: now.lowest + by, highest: now.highest + by, state: 'done' as const };
  });
  return [...done.reverse(), { ...now, state: 'now' }];
}

function Key({
  label,
  hint,
  onClick,
  icon: Icon,
  on,
  disabled,
}: {
  label: string;
  hint: string;
  onClick: () => void;
  icon?: typeof Hand;
  on?: boolean;
  disabled?: boolean;
}) {
  return (
    <button
      className={`button px-3 ${on ? 'border-accent text-accent' : ''}`}
      title={hint}
      aria-keyshortcuts={hint}
      aria-pressed={on}
      onClick={onClick}
      disabled={disabled}
    >
      {Icon && <Icon aria-hidden size={18} />} {label}
    </button>
  );
}
