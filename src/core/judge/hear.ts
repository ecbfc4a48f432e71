import { analyseTake } from '../take/analyse';
import type { Asked as AskedOfTake, TakeFindings, Task, Trace } from '../take/types';
import type { Pcm } from '../voice/types';
import { degreesOf, patternSpan } from '../exercise/pattern';
import { judgeTake } from './judge';
import type { Asked, Judgement, KnownVoice } from './types';

/** A narrower slide is no siren that a map could learn from. */
const SIREN_ST = 7;

/** What a take of an exercise is to the analysis: a siren, a scale with its pattern, or something sung freely. */
export function taskOf({ exercise, keys }: Pick<Asked, 'exercise' | 'keys'>): { task: Task; asked: AskedOfTake } {
  const slid = exercise.steps.some((s, i) => s.slide && i + 1 < exercise.steps.length);
  const { top, bottom } = patternSpan(exercise);
  if (slid && exercise.steps.every((s, i) => s.slide || i + 1 === exercise.steps.length) && top - bottom > SIREN_ST)
    return { task: 'siren', asked: { slid } };
  const degrees = degreesOf(exercise);
  if (slid || !degrees || new Set(degrees).size < 3) return { task: 'free', asked: { slid } };
  return { task: 'scale', asked: { slid, degrees, tonicMidi: keys[0] } };
}

/** Hear a take of an exercise and judge it. @throws RangeError as `analyseTake` does. */
export function hearExercise(
  pcm: Pcm,
  asked: Asked,
  voice: KnownVoice | null = null,
): { findings: TakeFindings; trace: Trace; judgement: Judgement } {
  const { task, asked: ofTake } = taskOf(asked);
  const { findings, trace } = analyseTake(pcm, task, { asked: ofTake });
  return { findings, trace, judgement: judgeTake(asked, { findings, trace }, voice) };
}
