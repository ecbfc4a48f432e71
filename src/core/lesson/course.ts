import { said } from '../words/said';
import { ruleForToday } from '../plan/safety';
import { expectedChange, VoiceTypeId, voiceType } from '../plan/voice-types';
import type { PinName, VoiceMap } from '../map/types';
import { COLOURS, LOUDNESSES } from '../take/types';
import { spanOf } from './pattern';
import { Ask, Course, HealthAnswers, LessonAction, LessonStep, Protocol, VoiceAnchors } from './types';

/** A comfortable low note lies about this far over what was merely touched. */
const OVER_TOUCHED_ST = 2;
/** Keys stay within what any voice can sing: C1 to C7. */
const LOWEST_NOTE = 24;
const HIGHEST_NOTE = 96;
/** The top is confirmed by one repeat this much lower (the bottom: higher). */
const CONFIRM_ST = 1;

/**
 * Where the steps of a lesson start in this voice: from its map, and from its type for what isn't known.
 * @param young whether the singer is a minor or the voice is changing
 */
export function anchorsFor(map: VoiceMap | null, type: VoiceTypeId, young = false): VoiceAnchors {
  const usual = voiceType(type);
  return {
    low: Math.round(map?.usable?.low.midi ?? (map?.extreme ? map.extreme.low.midi + OVER_TOUCHED_ST : usual.low)),
    change: Math.round(map?.passaggi[0]?.midi ?? expectedChange(type)),
    high: Math.round(map?.extreme?.high.midi ?? usual.high),
    ...pinnedIn(map),
    ...(young ? { young } : {}),
  };
}

/** The ends a coach has pinned. */
function pinnedIn(map: VoiceMap | null): Pick<VoiceAnchors, 'pinned'> {
  const end = (what: PinName, midi: number | undefined) => (map && what in map.pinned ? midi : undefined);
  const pinned = { low: end('usable-low', map?.usable?.low.midi), high: end('usable-high', map?.usable?.high.midi) };
  return pinned.low === undefined && pinned.high === undefined ? {} : { pinned };
}

/** A lesson at its beginning. */
export function beginCourse(protocol: Protocol, voice: VoiceAnchors): Course {
  const course: Course = {
    protocolId: protocol.id,
    steps: protocol.steps,
    health: protocol.asksHealth ? null : { hoarse: false, ill: false, pain: false, note: '' },
    voice,
    at: 0,
    count: 0,
    tonicMidi: null,
    held: false,
    confirming: false,
    vowel: null,
    skipped: {},
    revision: 0,
  };
  return enter(course, 0);
}

/** Whether the questions about today's health still wait for an answer. */
export const asksHealth = (course: Course): boolean => course.health === null;

export const isOver = (course: Course): boolean => course.at >= course.steps.length;

/** A voice that is young or changing isn’t taken to its ends, nor made to be loud (common practice, no source). */
const YOUNG_SAYS = said('A young or changing voice: its ends are not looked for.') as string;
const forGrown = ({ keys, id, exercise }: LessonStep): boolean =>
  exercise ? exercise.strand === 'range' : keys?.until === 'stop' || /^(hold-|loud-to-soft|ceiling)/.test(id);

export const PASSED_OVER = said('Passed over.') as string;

/** Why a step is left out of this lesson, in words; null when it isn’t. */
const leftOut = (course: Course, step: LessonStep): string | null =>
  (step.testsRange ? restReason(course.health) : null) ?? (course.voice.young && forGrown(step) ? YOUNG_SAYS : null);

/** In pain nothing is sung, unless the coach says so all the same. */
export const restsToday = ({ health }: Course): boolean => Boolean(health?.pain && !health.goOn);

/** Why the ends of the voice are left alone today, in words for the singer; null when they needn't be. */
export const restReason = (health: HealthAnswers | null): string | null => ruleForToday(health)?.says ?? null;

/** Tonic of a step's first key: the pattern's lowest note (highest, if it walks down) stands on the step's place. */
function firstTonic(step: LessonStep, course: Course): number | null {
  if (!step.keys) return null;
  const { from, semitones, step: walk } = step.keys;
  if (from === 'tonic') return within(step, semitones, course);
  const edge = walk < 0 ? spanOf(step).top : spanOf(step).bottom;
  return within(step, course.voice[from] + semitones - edge, course);
}

/**
 * A key whose notes stay within what any voice can sing, and within what the coach pinned; of an exercise, in a voice that isn't well
 * today, none above the change.
 */
function within(step: LessonStep, tonic: number, { voice, health }: Course): number {
  const unwell = step.exercise && ruleForToday(health) ? voice.change : Infinity;
  const highest = Math.min(unwell, Math.floor(voice.pinned?.high ?? HIGHEST_NOTE));
  return Math.min(highest - spanOf(step).top, Math.max(Math.ceil(voice.pinned?.low ?? LOWEST_NOTE) - spanOf(step).bottom, tonic));
}

/** Stand at the beginning of step `at`, or of the first after it that isn't left out. */
function enter({ walk: _, ...course }: Course, at: number): Course {
  let to = at;
  const skipped = { ...course.skipped };
  for (; to < course.steps.length; to++) {
    const reason = leftOut(course, course.steps[to]);
    if (!reason) break;
    skipped[course.steps[to].id] = reason;
  }
  // What was passed over and is come back to isn't left out any more.
  if (to < course.steps.length) delete skipped[course.steps[to].id];
  return {
    ...course,
    skipped,
    at: to,
    count: 0,
    tonicMidi: to < course.steps.length ? firstTonic(course.steps[to], course) : null,
    held: false,
    confirming: false,
    vowel: null,
  };
}

/** Semitones from this key to the next. */
const walkOf = (course: Course): number => course.walk ?? course.steps[course.at]?.keys?.step ?? 0;

/** What is asked for now; null while health is asked about and when the lesson is over. */
export function askOf(course: Course): Ask | null {
  if (asksHealth(course) || isOver(course)) return null;
  const step = course.steps[course.at];
  return {
    step,
    tonicMidi: course.tonicMidi,
    colour: step.colours ? COLOURS[Math.min(course.count, COLOURS.length - 1)] : null,
    loudness: step.loudnesses ? LOUDNESSES[course.count % LOUDNESSES.length] : null,
    vowel: course.vowel ?? step.vowel,
    number: course.count + 1,
    of: step.keys ? (step.keys.until === 'stop' || isRoundOver(course) ? null : step.keys.until) : step.times,
    confirms: course.confirming,
  };
}

/** Whether all keys of the exercise in hand were sung: what comes is the coach's to say. */
export function isRoundOver({ steps, at, count }: Course): boolean {
  const step = steps[at];
  return Boolean(step?.exercise && step.keys && step.keys.until !== 'stop' && count >= step.keys.until);
}

/** The next key or take of this step, or the next step after the last; after an exercise's last take the lesson stays with it. */
function onward(course: Course, taken: boolean): Course {
  const step = course.steps[course.at];
  if (course.held) return course;
  if (step.exercise && taken) {
    const sung = { ...course, count: course.count + 1 };
    if (isRoundOver(sung)) return sung;
  }
  if (isRoundOver(course)) return enter(course, course.at + 1);
  if (course.confirming) return enter(course, course.at + 1);
  const count = course.count + 1;
  const wanted = step.keys ? step.keys.until : step.times;
  if (wanted !== 'stop' && count >= wanted) return enter(course, course.at + 1);
  if (!step.keys || course.tonicMidi === null) return { ...course, count };
  const walk = walkOf(course);
  const tonicMidi = within(step, course.tonicMidi + walk, course);
  // At the end of what can be sung there is no further key.
  if (walk !== 0 && tonicMidi === course.tonicMidi) return enter(course, course.at + 1);
  return { ...course, count, tonicMidi };
}

/** The lesson after an action. Pure: undo is keeping the course before. */
export function advance(course: Course, action: LessonAction): Course {
  return { ...act(course, action), revision: course.revision + 1 };
}

function act(course: Course, action: LessonAction): Course {
  if (action.kind === 'health') return enter({ ...course, health: action.answers, skipped: {} }, 0);
  if (action.kind === 'go') return enter(course, Math.max(0, Math.min(course.steps.length, action.step)));
  const step = course.steps[course.at];
  if (action.kind === 'back') {
    if (course.confirming) return { ...course, confirming: false, tonicMidi: confirmedFrom(course) };
    if (isOver(course) || course.count === 0) return enter(course, previous(course));
    if (isRoundOver(course)) return { ...course, count: course.count - 1 };
    const tonicMidi = step.keys && course.tonicMidi !== null ? within(step, course.tonicMidi - walkOf(course), course) : null;
    return { ...course, count: course.count - 1, tonicMidi };
  }
  if (action.kind === 'sing') return inserted(course, action.step);
  if (isOver(course)) return course;
  switch (action.kind) {
    case 'taken':
    case 'next':
      return onward(course, action.kind === 'taken');
    case 'skip':
      // What was begun is cut short, not left out.
      return enter(course.count > 0 ? course : { ...course, skipped: { ...course.skipped, [step.id]: PASSED_OVER } }, course.at + 1);
    case 'hold':
      return { ...course, held: !course.held };
    case 'vowel':
      return { ...course, vowel: action.vowel };
    case 'tempo':
      return { ...course, steps: course.steps.with(course.at, { ...step, tempo: action.tempo }) };
    case 'key':
      if (!step.keys || course.tonicMidi === null) return course;
      return {
        ...course,
        held: false,
        walk: action.by * Math.max(1, Math.abs(step.keys.step)),
        tonicMidi: within(step, course.tonicMidi + action.by, course),
      };
    case 'in-key':
      if (!step.keys || course.tonicMidi === null) return course;
      return { ...course, held: false, tonicMidi: within(step, action.tonicMidi, course) };
    case 'stop': {
      // One more key, nearer, shows whether the last one was the end or an accident.
      if (!step.keys || step.keys.until !== 'stop' || course.confirming || course.tonicMidi === null) return enter(course, course.at + 1);
      return { ...course, confirming: true, held: false, tonicMidi: within(step, course.tonicMidi - nearer(step), course) };
    }
  }
}

/** The lesson with another step, begun at once: after what was begun, before what was not. */
function inserted(course: Course, step: LessonStep): Course {
  const at = isOver(course) ? course.steps.length : course.count > 0 ? course.at + 1 : course.at;
  return enter({ ...course, steps: course.steps.toSpliced(at, 0, { ...step, id: ownId(step.id, course.steps) }) }, at);
}

/** An id that no step of the lesson has: the same exercise may stand in it twice. */
export function ownId(id: string, steps: readonly LessonStep[]): string {
  const taken = new Set(steps.map((s) => s.id));
  for (let n = 1; ; n++) {
    const own = n === 1 ? id : `${id}-${n}`;
    if (!taken.has(own)) return own;
  }
}

/** By how much the key that confirms an end lies nearer to the middle, signed as the keys walk. */
const nearer = (step: LessonStep) => Math.sign(step.keys?.step ?? 0) * CONFIRM_ST;

/** The key at which the voice had enough, from the one that confirms it. */
function confirmedFrom(course: Course): number | null {
  const step = course.steps[course.at];
  return course.tonicMidi === null ? null : within(step, course.tonicMidi + nearer(step), course);
}

/** The step before, passing over what is left out. */
function previous(course: Course): number {
  let at = course.at - 1;
  while (at > 0 && leftOut(course, course.steps[at])) at--;
  return Math.max(0, at);
}
