import { Patterned, renderKey } from './render';

/** Keys walk up and come back down: the order in which they are sung over and over, each turn once. */
export const thereAndBack = (keys: readonly number[]): number[] => [...keys, ...keys.slice(1, -1).reverse()];

/**
 * The keys of one time through an exercise: up, back down and up again until its minutes are over, ended at the key that comes
 * nearest to them. One key at least; none where there are none.
 *
 * @example roundOf(fiveNotes, [60, 62, 64], 100, 0.5) // [60, 62, 64, 62]: four keys of 7.2 s
 */
export function roundOf(exercise: Patterned, keys: readonly number[], tempo: number, minutes: number): number[] {
  if (keys.length === 0) return [];
  const walk = thereAndBack(keys);
  const keyS = renderKey(exercise, keys[0], tempo).totalS;
  const times = Math.max(1, Math.round((minutes * 60) / keyS));
  return Array.from({ length: times }, (_, i) => walk[i % walk.length]);
}
