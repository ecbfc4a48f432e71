import { useLanguage } from '../language/language';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useFollowAlong } from '../../audio/follow-along';
import type { Live } from '../../audio/input';
import { renderKey } from '../../core/exercise/render';
import { nextSound } from '../../core/lesson/exercise-step';
import { taskOf } from '../../core/judge/hear';
import { askOf, isOver, isRoundOver } from '../../core/lesson/course';
import { paceOf } from '../../core/lesson/pace';
import { hasPattern, patternSteps } from '../../core/lesson/pattern';
import { createTakeEnd } from '../../core/lesson/take-end';
import { takeName } from '../../core/lesson/take-name';
import type { Ask, LessonAction, LessonStep } from '../../core/lesson/types';
import type { CoachMark, VoiceMap } from '../../core/map/types';
import type { VoiceTypeId } from '../../core/plan/voice-types';
import type { CrossingStyle } from '../../core/sim/profile';
import type { TimbreAxis } from '../../core/take/timbre';
import { HOP_S } from '../../core/voice/types';
import { useAwake } from '../kit/useAwake';
import { openSource } from '../listen/sources';
import { useRecorder } from '../listen/useRecorder';
import { COLOUR_WORDS, VOWELS } from '../listen/what-to-sing';
import type { LiveStore } from '../take/LiveTrace';
import { simulatedAsk } from './sim-ask';
import { judgedKey, useJudge } from './useJudge';
import type { useCourse } from './useCourse';
import { useMadeTakes } from './useMadeTakes';
import { texts, Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

const MICROPHONE_WENT = texts('The microphone went away. What was recorded so far is kept: plug it in again and press Space.');

/** The last note of the piano has died away by then. */
const AFTER_PIANO_S = 0.15;
const BREATH_BEATS = 2;
const COUNT_IN_BEATS = 4;
/** Between a take and the next key's piano or recording: time for a breath. */
const BREATH_MS = 500;
/** Less singing than this is none. */
const LEAST_SUNG_S = 0.3;

const PACE_WORDS = texts({ lingers: 'Keep moving: the low notes use up the breath.', rushes: 'A little slower through the change.' });

/** What is heard before a take. */
export type Reference = 'pattern' | 'chord' | 'count' | 'none';

interface Setting {
  singer: { id: string; name: string; voiceType: VoiceTypeId; axis: TimbreAxis | null };
  map: VoiceMap;
  lessonId: string;
  reference: Reference;
  source: 'microphone' | 'simulated';
  /** How the simulated singer crosses. */
  style: CrossingStyle;
}

/** A pace is moved by so many crotchets a minute, within what the piano plays. */
const TEMPO_STEP = 4;
const TEMPI = { least: 40, most: 200 };

/** What the analysis is told of the pattern: all of an exercise, the degrees of a scale. */
const patternOf = ({ step, tonicMidi }: Ask) =>
  tonicMidi === null
    ? null
    : step.exercise
      ? taskOf({ exercise: step.exercise, keys: [tonicMidi] }).asked
      : step.task === 'scale' && step.degrees
        ? { degrees: step.degrees, tonicMidi }
        : null;

/** A lesson as it runs: the piano gives a key, the take begins after it and ends by itself, the next follows; and what a coach does meanwhile. */
export function useLessonRun(
  { course, present, act, keepJudged, forget }: ReturnType<typeof useCourse>,
  { singer, map, lessonId, reference, source, style }: Setting,
) {
  const { t } = useLanguage();
  const [marks, setMarks] = useState<CoachMark[]>([]);
  const [problem, setProblem] = useState<Said | null>(null);
  /** Whether the lesson goes on by itself from take to take of a step. */
  const [running, setRunning] = useState(false);
  const piano = useFollowAlong(true);
  const pace = useRef<HTMLParagraphElement | null>(null);
  const takeEnd = useRef<{ push(frames: Live['frames']): boolean } | null>(null);
  const finishNow = useRef<(byItself: boolean) => Promise<void>>(async () => {});
  const goNow = useRef<() => void>(() => {});
  /** What the take under way, or the last one, was asked for. */
  const [asked, setAsked] = useState<Ask | null>(null);
  const against = useJudge(map, singer.voiceType);
  const breath = useRef<ReturnType<typeof setTimeout> | undefined>(undefined);

  const onFrames = useCallback(
    ({ frames }: Live, { midi }: LiveStore) => {
      if (pace.current && askOf(present.current)?.step.task === 'siren') {
        const hint = paceOf(midi, course.voice.low, course.voice.change);
        const words = hint ? t(PACE_WORDS[hint]) : '';
        if (pace.current.textContent !== words) pace.current.textContent = words;
      }
      if (takeEnd.current?.push(frames)) {
        takeEnd.current = null;
        void finishNow.current(true);
      }
    },
    [course.voice, present, t],
  );
  const recorder = useRecorder(singer.axis, onFrames, () => {
    setProblem(MICROPHONE_WENT);
    return finishNow.current(false);
  });
  const { state, close } = recorder;
  const takes = useMadeTakes(recorder.deliver, setProblem, forget);
  const playing = piano.sounding !== null;
  useAwake(running || state === 'recording');

  const record = async () => {
    const now = askOf(present.current);
    if (!now) return;
    setProblem(null);
    setMarks([]);
    takes.stopPlaying();
    takeEnd.current = createTakeEnd(now);
    setAsked(now);
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
          lessonId,
          step: takeName(now, COLOUR_WORDS.find(([c]) => c === now.colour)?.[1] ?? null),
          asked: patternOf(now),
        },
        (events) =>
          openSource(source, events, {
            type: singer.voiceType,
            style,
            task: (low) => simulatedAsk(now, low),
            vowel: now.vowel,
            loudness: now.loudness,
            onEnd: () => void finishNow.current(true),
          }),
      );
    } catch (error) {
      setRunning(false);
      setProblem(saidOf(error));
    }
  };

  /** The piano first, where it is wanted and the step has a key; then the take. */
  const go = () => {
    clearTimeout(breath.current);
    const now = askOf(present.current);
    if (!now) return;
    setRunning(true);
    if (reference === 'none' || now.tonicMidi === null || !hasPattern(now.step)) return void record();
    const { tempo } = now.step;
    if (reference === 'count') return void piano.countIn('reference', COUNT_IN_BEATS, tempo, () => void record());
    const key = renderKey({ steps: patternSteps(now.step) }, now.tonicMidi, tempo);
    const chordOnly = { ...key, notes: [], totalS: key.chordS };
    const pattern = { ...key, totalS: key.totalS - (BREATH_BEATS * 60) / tempo + AFTER_PIANO_S };
    void piano.play('reference', [reference === 'chord' ? chordOnly : pattern], () => void record());
  };
  const goSoon = (ms: number) => {
    breath.current = setTimeout(() => goNow.current(), ms);
  };

  /** End the take under way: it goes off to the server, and the lesson goes on. */
  const finish = async (byItself: boolean, action: LessonAction = { kind: 'taken' }) => {
    takeEnd.current = null;
    const finished = await recorder.stop(asked && against(asked));
    if (!finished) return;
    if (source === 'simulated') close();
    if (pace.current) pace.current.textContent = '';
    takes.add(finished);
    void finished.heard?.then((heard) => {
      const judged = asked && judgedKey(finished.take.id, asked, heard);
      if (judged) keepJudged(judged);
    });
    const before = present.current;
    const next = act(action);
    // From take to take of a step by itself; a new step waits for the coach.
    if ((byItself || action.kind === 'stop') && next.at === before.at && !isOver(next) && !isRoundOver(next)) goSoon(BREATH_MS);
    else setRunning(false);
  };
  useEffect(() => {
    goNow.current = go;
    finishNow.current = finish;
  });
  useEffect(() => () => clearTimeout(breath.current), []);

  /** Stop whatever sounds or is about to; a take under way is given up. */
  const halt = () => {
    clearTimeout(breath.current);
    piano.stop();
    recorder.drop();
    takeEnd.current = null;
    setRunning(false);
  };
  /** Do something to the lesson; what runs is given up for it. */
  const step = (action: LessonAction) => {
    halt();
    act(action);
  };

  return {
    state,
    running,
    playing,
    asked,
    recorder,
    takes,
    marks,
    problem: problem ?? piano.problem,
    pace,
    halt,
    step,
    /** Start, stop, or give up what is about to begin. */
    main() {
      if (state === 'recording') void finish(false);
      else if (playing || running) halt();
      else if (state === 'idle') go();
    },
    /** The voice has had enough in this direction. */
    enough() {
      const sung = recorder.live.current.midi.reduce((n, m) => n + (m > 0 ? 1 : 0), 0) * HOP_S;
      if (state === 'recording' && sung >= LEAST_SUNG_S) return void finish(true, { kind: 'stop' });
      // The next key was open already and nobody has sung it.
      const wasRunning = running;
      step({ kind: 'stop' });
      if (wasRunning && askOf(present.current)?.confirms) {
        setRunning(true);
        goSoon(BREATH_MS);
      }
    },
    repeat() {
      const wasTaking = state === 'recording' || playing;
      halt();
      // What was just sung, once more.
      if (!wasTaking && present.current.count > 0) act({ kind: 'back' });
      goSoon(0);
    },
    nextVowel() {
      const now = askOf(present.current);
      if (now?.vowel) act({ kind: 'vowel', vowel: nextSound(now.step.exercise?.sounds ?? [], VOWELS, now.vowel) });
    },
    /** Sing this now; the piano begins at once. */
    sing(next: LessonStep) {
      step({ kind: 'sing', step: next });
      goSoon(0);
    },
    /** The exercise in hand from its first key once more, on another sound. */
    onAnotherSound() {
      const now = askOf(present.current);
      if (!now?.step.exercise) return;
      const vowel = nextSound(now.step.exercise.sounds, VOWELS, now.vowel);
      step({ kind: 'sing', step: { ...now.step, id: now.step.exercise.id, vowel } });
      goSoon(0);
    },
    /** A key higher or lower, and on that way; of an exercise the piano gives it at once, else where the lesson was going on by itself. */
    keyBy(by: 1 | -1) {
      const wasRunning = running || Boolean(askOf(present.current)?.step.exercise);
      step({ kind: 'key', by });
      if (wasRunning) {
        setRunning(true);
        goSoon(0);
      }
    },
    /** In the key of a note that was played; an exercise in hand begins there at once. */
    inKey(tonicMidi: number) {
      const wasRunning = running || Boolean(askOf(present.current)?.step.exercise);
      step({ kind: 'in-key', tonicMidi });
      if (wasRunning) {
        setRunning(true);
        goSoon(0);
      }
    },
    /** Slower or faster from the next key on. */
    tempoBy(by: 1 | -1) {
      const now = askOf(present.current);
      if (!now || !hasPattern(now.step)) return;
      act({ kind: 'tempo', tempo: Math.min(TEMPI.most, Math.max(TEMPI.least, now.step.tempo + by * TEMPO_STEP)) });
    },
    /** Mark this moment of the take under way. */
    mark(by: CoachMark['by']) {
      const m = recorder.mark(by);
      if (m) setMarks((all) => [...all, m]);
    },
  };
}
