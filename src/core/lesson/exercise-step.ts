import { keysFor, type Anchors } from '../exercise/keys';
import type { Exercise } from '../exercise/types';
import { taskOf } from '../judge/hear';
import type { Asked } from '../judge/types';
import type { SafetyRule, Today } from '../plan/safety';
import { lowered, sungToday } from '../plan/today';
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
