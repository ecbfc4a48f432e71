import { patternSeconds, patternSpan } from '../exercise/pattern';
import type { Step } from '../exercise/types';
import { Ask, LessonStep } from './types';

/** A step's pattern as notes: the exercise's own; of degrees, quavers, the last a crotchet; held notes four beats. Empty where it has none. */
export function patternSteps({ degrees, slide, task, exercise }: Pick<LessonStep, 'degrees' | 'slide' | 'task' | 'exercise'>): Step[] {
  if (exercise) return exercise.steps;
  return (degrees ?? []).map((degree, i, all) => ({
    degree,
    beats: task === 'sustain' ? 4 : i === all.length - 1 ? 1 : slide ? 2 : 0.5,
    ...(slide && i < all.length - 1 ? { slide: true } : {}),
  }));
}

/** Whether the piano has anything to give. */
export const hasPattern = ({ degrees, exercise }: Pick<LessonStep, 'degrees' | 'exercise'>): boolean => Boolean(degrees || exercise);

/** Seconds a step's pattern takes at its tempo; 0 where it has none. */
export const patternS = (step: LessonStep): number => patternSeconds({ steps: patternSteps(step) }, step.tempo);

/** Lowest and highest note of a step above its tonic, semitones; a step without a pattern is one note. */
export const spanOf = (step: LessonStep): { bottom: number; top: number } =>
  hasPattern(step) ? patternSpan({ steps: patternSteps(step) }) : { bottom: 0, top: 0 };

/** Lowest and highest note of what is asked, MIDI; null where the singer chooses. */
export function notesAsked(ask: Ask): { lowest: number; highest: number } | null {
  if (ask.tonicMidi === null || !hasPattern(ask.step)) return null;
  const { bottom, top } = spanOf(ask.step);
  return { lowest: ask.tonicMidi + bottom, highest: ask.tonicMidi + top };
}
