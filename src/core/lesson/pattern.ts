import { Step } from '../exercise/types';
import { degreeToSemitones } from '../music/scale';
import { Ask, LessonStep } from './types';

/** A step's pattern as notes: quavers, the last a crotchet; held notes four beats. */
export function patternSteps({ degrees, slide, task }: LessonStep): Step[] {
  return (degrees ?? []).map((degree, i, all) => ({
    degree,
    beats: task === 'sustain' ? 4 : i === all.length - 1 ? 1 : slide ? 2 : 0.5,
    ...(slide && i < all.length - 1 ? { slide: true } : {}),
  }));
}

/** Seconds a step's pattern takes at its tempo; 0 where it has none. */
export const patternS = (step: LessonStep): number => (patternSteps(step).reduce((s, n) => s + n.beats, 0) * 60) / step.tempo;

/** Lowest and highest note of what is asked, MIDI; null where the singer chooses. */
export function notesAsked(ask: Ask): { lowest: number; highest: number } | null {
  if (ask.tonicMidi === null || !ask.step.degrees) return null;
  const notes = ask.step.degrees.map((d) => ask.tonicMidi! + degreeToSemitones(d));
  return { lowest: Math.min(...notes), highest: Math.max(...notes) };
}
