import type { Anchors } from '../exercise/keys';
import { patternSpan } from '../exercise/pattern';
import type { Exercise } from '../exercise/types';
import { warms } from './check';
import { ruleForToday, SafetyRule, Today } from './safety';
import type { PlanItem } from './types';

/** What of an item may be sung today: its keys, none of them when it is left, and why. */
export interface SungToday {
  keys: number[];
  because: SafetyRule | null;
}

/**
 * What today's answers leave of an item: in pain nothing; ill or hoarse no range, no test, no weight, and no key that reaches above the
 * change. They decide today and never the week (common practice, no source).
 */
export function sungToday(
  e: Pick<Exercise, 'strand' | 'role' | 'weight' | 'steps'>,
  keys: readonly number[],
  today: Today | null,
  changeMidi: number,
): SungToday {
  const because = ruleForToday(today);
  if (!because) return { keys: [...keys], because: null };
  if (because.does === 'rest-today' || e.strand === 'range' || e.role === 'test' || e.weight > 0) return { keys: [], because };
  const { top } = patternSpan(e);
  const under = keys.filter((key) => key + top <= changeMidi);
  return { keys: under, because: under.length === keys.length ? null : because };
}

/**
 * Keys on a day when the voice is not quite as usual: what reaches above the change comes down by so many semitones, what doesn't stays,
 * and nothing goes under the voice.
 */
export function lowered(
  e: Pick<Exercise, 'steps'>,
  keys: readonly number[],
  bySt: number,
  { low, change }: Pick<Anchors, 'low' | 'change'>,
) {
  const { top, bottom } = patternSpan(e);
  if (bySt === 0) return [...keys];
  return [...new Set(keys.map((key) => (key + top > change ? key - bySt : key)))].filter((key) => key + bottom >= low);
}

/** A day's items as today's answers leave them: those without a key that may be sung are gone, and where nothing is left to warm with, all are. */
export function forToday<T extends PlanItem & { exercise: Exercise }>(items: readonly T[], today: Today | null, changeMidi: number): T[] {
  const left = items.flatMap((it) => {
    const { keys } = sungToday(it.exercise, it.keys, today, changeMidi);
    return keys.length ? [{ ...it, keys }] : [];
  });
  return ruleForToday(today) && !left.some(warms) ? [] : left;
}
