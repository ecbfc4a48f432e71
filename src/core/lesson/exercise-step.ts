import { keysFor, type Anchors } from '../exercise/keys';
import { patternSpan, patternText } from '../exercise/pattern';
import { exerciseOfTune, lineOf, type TuneNote } from '../exercise/tune';
import type { Exercise, KeyPlace } from '../exercise/types';
import { taskOf } from '../judge/hear';
import type { Asked } from '../judge/types';
import type { SafetyRule, Today } from '../plan/safety';
import { lowered, sungToday } from '../plan/today';
import { texts } from '../words/said';
import type { Ask, LessonStep } from './types';

/** An exercise as it can be sung in a lesson now, or why it can't. */
export interface Offer {
  exercise: Exercise;
  /** Tonics, in the order they are sung; empty where none is left. */
  keys: number[];
  sound: string;
  tempo: number;
  /** What today's answers take from it. */
  because: SafetyRule | null;
}

/** How a voice is on the day of a lesson: its answers, and by how much its check lowers what reaches above the change, semitones. */
export interface VoiceToday {
  answers: Today | null;
  lowerSt: number;
}

/**
 * An exercise for this voice today: its keys inside the voice's limits, lower where today's check says so, less those that today's
 * answers forbid.
 *
 * @param given the keys, sound and tempo that are agreed (an item of the plan); what is missing is the exercise's own
 */
export function offerOf(
  exercise: Exercise,
  anchors: Anchors,
  { answers, lowerSt }: VoiceToday,
  given: { keys?: readonly number[]; sound?: string; tempo?: number } = {},
): Offer {
  const usual = lowered(exercise, given.keys ?? keysFor(exercise, anchors), lowerSt, anchors);
  const { keys, because } = sungToday(exercise, usual, answers, anchors.change);
  return { exercise, keys, because, sound: given.sound ?? exercise.sounds[0], tempo: given.tempo ?? exercise.tempo[1] };
}

/** Keys of what was played walk so far up from where it was played. */
const PLAYED_KEYS_ST = 4;
const MOST_NAME = 80;
/** A coach plays for a voice in any octave: the first of these in which it fits. */
const OCTAVES = [0, -12, 12, -24, 24];

/** A tune that was played as it can be sung in a lesson now: from the key it was played in, in the voice's own octave, upward. */
export function offerOfTune(
  { notes, tempo }: { notes: readonly TuneNote[]; tempo: number },
  id: string,
  nameOf: (degrees: string) => string,
  anchors: Anchors,
  today: VoiceToday,
): Offer {
  const { tonic, steps } = lineOf(notes);
  const { top } = patternSpan({ steps });
  const name = nameOf(patternText(steps.map(({ degree, alter }) => ({ degree, alter, beats: 1 })))).slice(0, MOST_NAME);
  const exercise: Exercise = {
    ...exerciseOfTune(notes, tempo, { id, name }),
    place: 'away',
    measure: 'in-tune',
    how: texts('As it was played.'),
    purpose: texts('it was played for this voice'),
  };
  const at = (semitones: number): KeyPlace => ({ edge: 'top', anchor: 'change', semitones: tonic + semitones + top - anchors.change });
  const offers = OCTAVES.map((octave) =>
    offerOf({ ...exercise, keys: { from: at(octave), to: at(octave + PLAYED_KEYS_ST) } }, anchors, today),
  );
  return offers.find((offer) => offer.keys.length > 0) ?? offers[0];
}

/** A step of a lesson in which an exercise is sung, key after key. @throws RangeError where no key is left. */
export function exerciseStep({ exercise, keys, sound, tempo }: Omit<Offer, 'because'>): LessonStep {
  if (keys.length === 0) throw new RangeError(`No key of ${exercise.name} is left in this voice today.`);
  const walk = keys.length > 1 ? keys[1] - keys[0] : 1;
  return {
    id: exercise.id,
    name: exercise.name,
    how: exercise.how,
    task: taskOf({ exercise, keys }).task,
    vowel: sound,
    degrees: null,
    exercise,
    keys: { from: 'tonic', semitones: keys[0], step: walk, until: keys.length },
    times: 1,
    tempo,
    testsRange: exercise.strand === 'range' || exercise.role === 'test' || exercise.weight > 0,
  };
}

/** What a take of one key is judged against; null where the step is no exercise. Sung after the piano, not with it. */
export const askedOfTake = ({ step, tonicMidi, vowel }: Ask): Asked | null =>
  step.exercise && tonicMidi !== null ? { exercise: step.exercise, sound: vowel, keys: [tonicMidi], tempo: step.tempo, alone: true } : null;

/** The sound after this one: the exercise's own, then the vowels. @example nextSound(['ng', 'oo'], ['ee', 'oo'], 'oo') // 'ee' */
export function nextSound(own: readonly string[], vowels: readonly string[], sound: string): string {
  const all = [...new Set([...own, ...vowels])];
  return all[(all.indexOf(sound) + 1) % all.length];
}
