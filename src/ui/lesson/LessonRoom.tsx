'use client';
import { asKey, flatsIn } from '../../core/music/scale';
import {
  ChevronDown,
  ChevronLeft,
  ChevronRight,
  ChevronUp,
  FastForward,
  Hand,
  ListMusic,
  Mic,
  Music,
  Pause,
  Repeat2,
  RotateCcw,
  Square,
  StepForward,
} from 'lucide-react';
import { Link } from '../kit/Link';
import dynamic from 'next/dynamic';
import { useCallback, useMemo, useState } from 'react';
import type { KeyboardState } from '../../audio/keyboard';
import { SHELF } from '../../core/exercise/shelf';
import { asksHealth, askOf, isOver, isRoundOver, restReason, restsToday } from '../../core/lesson/course';
import { exerciseStep, offerOfTune, type VoiceToday } from '../../core/lesson/exercise-step';
import { hasPattern, notesAsked, patternSteps } from '../../core/lesson/pattern';
import { targetOf } from '../../core/lesson/target';
import { sungIn } from '../../core/lesson/record';
import type { Course } from '../../core/lesson/types';
import { NO_TOUCH } from '../../core/music/midi-message';
import type { SongVoice } from '../../core/song/voice';
import type { TimbreAxis } from '../../core/take/timbre';
import type { CrossingStyle } from '../../core/sim/profile';
import { Choice } from '../kit/Choice';
import { Keys } from '../kit/Keys';
import { Notice } from '../kit/Notice';
import { useNarrow } from '../kit/useNarrow';
import { Shortcut, useShortcuts } from '../kit/useShortcuts';
import { useStored } from '../kit/useStored';
import { VERDICT_WORDS } from '../kit/verdict';
import { PlanSource, usePlanning } from '../plan/usePlanning';
import { useLadderScale } from '../ladder/useLadderScale';
import { LevelMeter } from '../listen/LevelMeter';
import { LevelSetting } from '../listen/LevelSetting';
import { LiveNote } from '../listen/LiveNote';
import { MicrophoneChoice } from '../listen/MicrophoneChoice';
import { SOURCES } from '../listen/sources';
import { KeyRung, Stage } from '../listen/Stage';
import { Unsent } from '../listen/Unsent';
import { COLOUR_WORDS, STYLE_WORDS } from '../listen/what-to-sing';
import { Staff } from '../staff/Staff';
import { HealthQuestions } from './HealthQuestions';
import { LessonOver } from './LessonOver';
import { MadeTakes } from './MadeTakes';
import { OfferGroup, offersFor, OwnSong } from './offers';
import { SideBySide } from './SideBySide';
import { StepStrip } from './StepStrip';
import { useCourse } from './useCourse';
import { Reference, useLessonRun } from './useLessonRun';
import { usePlayed } from './usePlayed';
import { useLanguage } from '../language/language';

import { Said, said, texts } from '../../core/words/said';

const ChooseExercise = dynamic(() => import('./ChooseExercise').then((m) => m.ChooseExercise), { ssr: false });

/** Where no key is asked for, the letters begin about so far under the change. */
const OCTAVE_UNDER_CHANGE_ST = 12;

/** How it stands with a keyboard, beside the box. */
const KEYBOARD_WORDS: Record<KeyboardState['is'], (state: KeyboardState) => Said> = {
  off: () => '',
  none: () => said('none is connected'),
  there: (state) => ('name' in state ? state.name : ''),
  gone: () => said('not connected any more'),
  refused: () => said('this browser gives none'),
};

const LOUDNESS_NAMES = texts({ soft: 'soft', medium: 'medium', full: 'full' });

const HEIGHT = 470;
/** Upright on a tablet all of it still fits the screen. */
const NARROW_HEIGHT = 380;
const REFERENCES: readonly (readonly [Reference, string])[] = texts([
  ['pattern', 'plays the pattern'],
  ['chord', 'gives the chord'],
  ['count', 'counts in only'],
  ['none', 'is silent'],
]);

interface Props {
  view: PlanSource & {
    singer: PlanSource['singer'] & { name: string; axis: TimbreAxis | null };
    /** What the singer has told of their health. */
    told: string;
    lesson: { id: string; name: string; course: Course; note: string; nextTime: string };
    /** What was agreed at the end of the lesson before. */
    agreed: { nextTime: string; on: Date } | null;
    /** What the singer's check and other singing say of today: how much lower exercises are offered, and why. */
    voiceToday: { lowerSt: number; because: Said[] };
    voice: SongVoice | null;
    songs: OwnSong[];
  };
}

/** A guided lesson: what to sing now, the voice as it sings, and what was found, take after take. */
export function LessonRoom({ view }: Props) {
  const { dateOf, t } = useLanguage();
  const { singer, map, lesson, agreed, songs, voice: songVoice, today } = view;
  const lessonCourse = useCourse(lesson.id, lesson.course);
  const { course, act, undo, redo } = lessonCourse;
  const ask = useMemo(() => askOf(course), [course]);
  const [reference, setReference] = useStored<Reference>('wendel-reference', 'pattern');
  const [source, setSource] = useStored<'microphone' | 'simulated'>('wendel-lesson-source', 'microphone');
  const [style, setStyle] = useState<CrossingStyle>('flip');
  const run = useLessonRun(lessonCourse, { singer, map, lessonId: lesson.id, reference, source, style });
  const { state, running, playing, recorder, halt, step, mark } = run;
  const { made, send, playOrStop, discard } = run.takes;
  const planning = usePlanning(view, view.school);
  const piano = usePlayed();
  const { hear } = piano;
  const onLadder = useCallback(
    (midi: number, down: boolean) => hear(down ? { does: 'press', midi, velocity: NO_TOUCH } : { does: 'release', midi }),
    [hear],
  );
  const [groups, setGroups] = useState<OfferGroup[] | null>(null);
  /** Where the voice isn't known yet, its type's places serve. */
  const anchors = useMemo(
    () =>
      planning.p?.anchors ?? {
        low: course.voice.low,
        high: course.voice.high,
        change: course.voice.change,
        speaking: course.voice.low + 3,
      },
    [planning.p, course.voice],
  );
  const voiceNow = (): VoiceToday => {
    const said = course.health ?? today;
    // In pain the coach may go on by their own word.
    const answers = course.health?.goOn && said ? { ...said, pain: false } : said;
    return { answers, lowerSt: view.voiceToday.lowerSt };
  };
  const choose = () => {
    halt();
    const voiceToday = voiceNow();
    setGroups(offersFor({ items: planning.items, shelf: [...SHELF, ...view.own], songs, voice: songVoice }, anchors, voiceToday));
  };
  const exerciseInHand = ask?.step.exercise;
  const [outOfReach, setOutOfReach] = useState(false);
  const { tune } = piano;
  /** A tune that is sung again is the same exercise. */
  const [sungTune, setSungTune] = useState<{ tune: object; id: string } | null>(null);
  const singTune =
    tune &&
    (() => {
      const id = sungTune?.tune === tune ? sungTune.id : crypto.randomUUID();
      setSungTune({ tune, id });
      const offer = offerOfTune(tune, id, (degrees) => t('Played: {degrees}', { degrees }), anchors, voiceNow());
      setOutOfReach(offer.keys.length === 0);
      if (offer.keys.length > 0) run.sing(exerciseStep(offer));
    });
  const inPlayedKey = ask?.step.keys && piano.lowest !== null ? () => run.inKey(piano.lowest!) : null;
  /** From the C under what is asked for. */
  const letLetters = (play: boolean) =>
    piano.setLetters(play ? 12 * Math.floor((ask?.tonicMidi ?? anchors.change - OCTAVE_UNDER_CHANGE_ST) / 12) : null);
  const shortcuts: Shortcut[] = [
    { key: ' ', says: said('starts and stops'), act: run.main },
    { key: 't', says: said('that’s enough in this direction'), act: run.enough },
    { key: 'r', says: said('repeats what was just sung'), act: run.repeat },
    { key: 'ArrowRight', says: said('goes on to the next key or take'), act: () => step({ kind: 'next' }) },
    { key: 'ArrowLeft', says: said('goes back'), act: () => step({ kind: 'back' }) },
    { key: 'h', says: said('holds the key'), act: () => act({ kind: 'hold' }) },
    { key: 's', says: said('skips the step'), act: () => step({ kind: 'skip' }) },
    { key: 'v', says: said('changes the sound'), act: run.nextVowel },
    { key: '/', says: said('sings something else: any exercise, any phrase'), act: choose },
    { key: 'o', says: said('the same keys once more, on another sound'), act: exerciseInHand ? run.onAnotherSound : null },
    { key: 'ArrowUp', says: said('a key higher, and on upward'), act: ask?.step.keys ? () => run.keyBy(1) : null },
    { key: 'ArrowDown', says: said('a key lower, and on downward'), act: ask?.step.keys ? () => run.keyBy(-1) : null },
    { key: 'p', says: said('lets the letters play the piano, until Esc'), act: () => letLetters(piano.letters === null) },
    { key: 'k', says: said('in the key of the lowest note you played'), act: inPlayedKey },
    { key: 'l', says: said('the tune you played last, as an exercise'), act: singTune },
    { key: '+', says: said('a little faster'), act: () => run.tempoBy(1) },
    { key: '-', says: said('a little slower'), act: () => run.tempoBy(-1) },
    { key: 'm', says: said('marks what you hear, while it is sung'), act: () => mark('coach') },
    { key: 'n', says: said('marks what the singer feels'), act: () => mark('singer') },
    { key: 'Escape', says: said('gives the take up'), act: halt },
    { key: 'z', command: true, says: said('takes a step of the lesson back'), act: undo },
    { key: 'y', command: true, says: said('and forward again'), act: redo },
  ];

  // At its end a lesson can still be gone back into; the health questions come before all of it.
  useShortcuts(isOver(course) && !asksHealth(course) ? shortcuts.filter((s) => s.command || ['ArrowLeft', '/', 'l'].includes(s.key)) : []);

  const takes = <MadeTakes made={made} singerId={singer.id} onPlay={playOrStop} onDiscard={discard} />;
  const asked = ask && notesAsked(ask);
  const scale = useLadderScale(map, singer.voiceType, useNarrow() ? NARROW_HEIGHT : HEIGHT, {
    lowestMidi: Math.min(course.voice.low - 3, asked?.lowest ?? Infinity),
    highestMidi: Math.max(course.voice.high + 3, asked?.highest ?? 0),
  });
  const keys = useMemo(() => keysOf(course), [course]);
  const pattern = useMemo(() => ask && hasPattern(ask.step) && { name: ask.step.name, steps: patternSteps(ask.step) }, [ask]);
  // What stands there was sung to what was asked then, until the next take begins.
  const drawnFor = run.asked ?? ask;
  const target = useMemo(() => (drawnFor ? targetOf(drawnFor) : []), [drawnFor]);
  const sung = useMemo(() => sungIn(course.judged ?? []), [course.judged]);
  const inHand = sung.find((s) => s.exerciseId === exerciseInHand?.id);
  const last = course.judged?.at(-1);
  const dialog = groups && (
    <ChooseExercise
      groups={groups}
      onClose={() => setGroups(null)}
      onChoose={(offer) => {
        setGroups(null);
        run.sing(exerciseStep(offer));
      }}
    />
  );

  const outside = <Notice>{t('What was played lies outside this voice in every octave, or is nothing for today.')}</Notice>;

  if (asksHealth(course)) return <HealthQuestions told={view.told} onAnswer={(answers) => act({ kind: 'health', answers })} />;
  if (restsToday(course) && course.health && !isOver(course))
    return (
      <section className="card flex max-w-2xl flex-col gap-3 text-lg" role="alert" data-testid="rests">
        <h2 className="text-[40px] leading-tight font-bold">{t('Rest today')}</h2>
        <p>{t(restReason(course.health)!)}</p>
        <div className="flex flex-wrap gap-2">
          <button className="button-main" onClick={() => act({ kind: 'go', step: course.steps.length })}>
            {t('End the lesson')}
          </button>
          <button className="button" onClick={() => act({ kind: 'health', answers: { ...course.health!, goOn: true } })}>
            {t('Go on all the same: I am the coach and have asked')}
          </button>
        </div>
      </section>
    );
  if (isOver(course) || !ask)
    return (
      <LessonOver
        singer={singer}
        lesson={lesson}
        course={course}
        sung={sung}
        planning={planning}
        takes={made.length > 0 && takes}
        onPlay={playOrStop}
        onBack={() => act({ kind: 'back' })}
        onChoose={choose}
        onTune={singTune}
      >
        {dialog}
        {outOfReach && outside}
        <Unsent takes={recorder.unsent} onTryAgain={(u) => void send(u)} />
      </LessonOver>
    );

  const busy = state === 'opening' || state === 'ending';
  return (
    <div className="flex flex-col gap-3">
      {agreed && (
        <p className="text-soft" data-testid="agreed">
          {t('Agreed on {date}:', { date: dateOf(agreed.on) })} <span className="text-ink">{agreed.nextTime}</span>
        </p>
      )}
      {view.voiceToday.because.length > 0 && (
        <p className="card border-band" data-testid="voice-today">
          {view.voiceToday.because.map((why) => t(why)).join(' ')}
        </p>
      )}
      {dialog}
      <StepStrip course={course} onGo={(to) => step({ kind: 'go', step: to })} />
      <div className="grid gap-x-4 gap-y-3 lg:grid-cols-[1fr_24rem] lg:grid-rows-[auto_1fr]">
        <div className="min-w-0 lg:col-start-2 lg:row-start-1">
          <div aria-live="polite">
            <h2 className="text-[40px] leading-tight font-bold" data-testid="ask">
              {t(ask.step.name)}
              {ask.vowel && t(' on “{vowel}”', { vowel: ask.vowel })}
            </h2>
            <p className="text-2xl font-semibold" data-testid="ask-key">
              {[
                ask.tonicMidi !== null && t('from {note}', { note: { note: asked!.lowest, flats: flatsIn(ask.tonicMidi) } }),
                ask.colour && t(COLOUR_WORDS.find(([c]) => c === ask.colour)![1]),
                ask.loudness && t(LOUDNESS_NAMES[ask.loudness]),
                ask.confirms ? t('once more, to be sure') : ask.of && ask.of > 1 ? t('{n} of {of}', { n: ask.number, of: ask.of }) : null,
                hasPattern(ask.step) && `♩ = ${ask.step.tempo}`,
                course.held && t('held'),
              ]
                .filter(Boolean)
                .join(' · ')}
            </p>
            <p className="mt-1 text-soft">
              {isRoundOver(course)
                ? t('All its keys are sung: ↑ a key higher, ↓ back down, O on another sound, → on with the lesson.')
                : t(ask.step.how)}
            </p>
          </div>
          {pattern && ask.tonicMidi !== null && <Staff exercise={pattern} tonic={ask.tonicMidi} voice={singer.voiceType} />}
          {exerciseInHand && (
            <p className="min-h-12" role="status" data-testid="verdict">
              {last && last.exerciseId === exerciseInHand.id && (
                <>
                  {t('{note} on “{sound}”:', { note: asKey(last.tonicMidi), sound: last.sound })} <b>{t(VERDICT_WORDS[last.verdict])}</b>{' '}
                  {last.verdict !== 'yes' && t(last.says)}
                </>
              )}
            </p>
          )}
        </div>
        <section
          aria-label={t('What is sung, beside the ladder')}
          className="flex min-w-0 flex-col gap-2 lg:col-start-1 lg:row-span-2 lg:row-start-1"
        >
          <Stage
            scale={scale}
            map={map}
            live={recorder.live}
            keys={keys}
            target={target}
            marks={run.marks}
            pace={run.pace}
            played={piano.notes}
            onPlay={onLadder}
          />
          {piano.letters !== null && (
            <p className="flex items-center gap-3 rounded-md border border-accent py-1 pr-1 pl-3" role="status">
              <span className="flex-1">
                {t(
                  'The letters play: A is {letters}, S the next white key, W the black one between. Comma and full stop: an octave down and up.',
                  { letters: { note: piano.letters } },
                )}
              </span>
              <button className="button shrink-0 px-3" title={t('Esc')} onClick={() => piano.setLetters(null)}>
                {t('Give the letters back')}
              </button>
            </p>
          )}
          <div className="flex flex-wrap gap-1">
            <Key label={t('Back')} hint="←" onClick={() => step({ kind: 'back' })} icon={ChevronLeft} />
            <Key label={t('Repeat')} hint="R" onClick={run.repeat} icon={RotateCcw} />
            <Key label={t('Next')} hint="→" onClick={() => step({ kind: 'next' })} icon={ChevronRight} />
            {ask.step.keys && <Key label={t('Higher')} hint="↑" onClick={() => run.keyBy(1)} icon={ChevronUp} />}
            {ask.step.keys && <Key label={t('Lower')} hint="↓" onClick={() => run.keyBy(-1)} icon={ChevronDown} />}
            {inPlayedKey && <Key label={t('From {what}', { what: { note: piano.lowest! } })} hint="K" onClick={inPlayedKey} icon={Music} />}
            {singTune && <Key label={t('Sing what I played')} hint="L" onClick={singTune} icon={Music} />}
            {exerciseInHand && <Key label={t('Another sound')} hint="O" onClick={run.onAnotherSound} icon={Repeat2} />}
            <Key label={t('Something else')} hint="/" onClick={choose} icon={ListMusic} />
            {ask.step.keys && <Key label={t('Hold key')} hint="H" onClick={() => act({ kind: 'hold' })} icon={Hand} on={course.held} />}
            {ask.step.keys?.until === 'stop' && !ask.confirms && (
              <Key label={t('That’s enough')} hint="T" onClick={run.enough} icon={Square} />
            )}
            <Key label={t('Skip step')} hint="S" onClick={() => step({ kind: 'skip' })} icon={FastForward} />
            <Key label={t('I hear it')} hint="M" onClick={() => mark('coach')} disabled={state !== 'recording'} />
            <Key label={t('Singer feels it')} hint="N" onClick={() => mark('singer')} disabled={state !== 'recording'} />
            <Keys shortcuts={shortcuts} />
          </div>
        </section>
        <aside className="flex min-w-0 flex-col gap-3 lg:col-start-2 lg:row-start-2">
          <LiveNote store={recorder.live} />
          <LevelMeter store={recorder.meter} paused={false} source={source} />
          <button className="button-main min-h-16 text-xl" onClick={run.main} disabled={busy} title={t('Space')} data-testid="main-key">
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
              ? t('Stop')
              : playing
                ? t('The piano gives it …')
                : busy || running
                  ? t('A breath …')
                  : isRoundOver(course)
                    ? t('Once more')
                    : course.count > 0
                      ? t('Go on')
                      : t('Start')}
          </button>
          {run.problem && <Notice>{t(run.problem)}</Notice>}
          {outOfReach && outside}
          {piano.keyboard.is === 'gone' && (
            <Notice>
              {t('{name} is not connected any more: the lesson goes on. Plugged in again, it is followed again.', {
                name: piano.keyboard.name,
              })}
            </Notice>
          )}
          {recorder.warning && <Notice>{t(recorder.warning)}</Notice>}
          <Unsent takes={recorder.unsent} onTryAgain={(u) => void send(u)} />
          {inHand && <SideBySide sung={inHand} onPlay={playOrStop} />}
          <div className="max-h-44 overflow-y-auto">{takes}</div>
          <details>
            <summary className="min-h-11 cursor-pointer content-center font-semibold">{t('Piano and microphone')}</summary>
            <div className="grid grid-cols-2 gap-2">
              <Choice label={t('The piano')} value={reference} options={REFERENCES} onChange={setReference} />
              <Choice
                label={t('Listen to')}
                value={source}
                options={SOURCES.filter((s): s is ['microphone' | 'simulated', string] => s[0] !== 'file')}
                onChange={(next) => {
                  halt();
                  recorder.close();
                  setSource(next);
                }}
              />
              {source === 'simulated' && <Choice label={t('A voice that')} value={style} options={STYLE_WORDS} onChange={setStyle} />}
              <label className="col-span-2 flex min-h-11 items-center gap-2">
                <input type="checkbox" checked={piano.follows} onChange={(e) => piano.setFollows(e.target.checked)} />
                {t('Follow a MIDI keyboard')}{' '}
                <span className="text-sm text-soft">{t(KEYBOARD_WORDS[piano.keyboard.is](piano.keyboard))}</span>
              </label>
              <label className="col-span-2 flex min-h-11 items-center gap-2">
                <input type="checkbox" checked={piano.letters !== null} onChange={(e) => letLetters(e.target.checked)} />
                {t('The letters play the piano')} <kbd className="text-sm text-soft">P</kbd>
              </label>
              {source === 'microphone' && <MicrophoneChoice onChange={recorder.close} disabled={state !== 'idle'} />}
            </div>
            <LevelSetting source={source} />
            <p className="mt-2 text-sm text-soft">
              <Link className="underline" href={`/singers/${singer.id}/listen`}>
                {t('A free take')}
              </Link>{' '}
              {t('is possible at any moment; the lesson waits.')}
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
