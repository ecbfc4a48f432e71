import type { Said } from '../words/said';
import { howSoft } from '../map/how-soft';
import type { Ceiling } from '../map/types';
import { patternSpan } from './pattern';
import type { Exercise } from './types';

/** How soft an exercise in some keys is to be sung so that it stays joined (`howSoft`); through a straw loudness is no question. */
export function howSoftIn(ceiling: Ceiling | undefined, exercise: Pick<Exercise, 'steps' | 'needs'>, keys: readonly number[]): Said | null {
  if (exercise.needs.includes('straw')) return null;
  const { bottom, top } = patternSpan(exercise);
  return howSoft(ceiling, Math.min(...keys) + bottom, Math.max(...keys) + top);
}
