import { MOST_EFFORT, ruleForSign, ruleForToday, SafetyRule } from '../plan/safety';
import { said, Said } from '../words/said';
import { readinessOf } from './readiness';
import { Entry, isBefore, isCheck, isDone } from './types';

/** What today's answers and reports leave of today's practice. */
export interface Standing {
  /** Practice is over for today: why. */
  stopped: SafetyRule | null;
  /** Exercises that are left for today: why. */
  left: ReadonlyMap<string, SafetyRule>;
  /** Fewer rounds, and the ends of the voice left alone: why. */
  lighter: Said | null;
  /** Whether the questions before practice were answered. */
  asked: boolean;
}

/** So many stopped exercises in a day are enough of it (common practice, no source). */
const MOST_STOPPED = 2;

/**
 * Where practice stands on a day, from its entries. It only ever gets stricter within the day: an answer given later doesn't take
 * back an earlier sign, so a stop can't be practised through.
 */
export function standing(entries: readonly Entry[], day: string): Standing {
  let stopped: SafetyRule | null = null;
  let lighter: Said | null = null;
  let asked = false;
  const left = new Map<string, SafetyRule>();
  const stop = (rule: SafetyRule) => (stopped ??= rule);
  for (const e of entries) {
    if (e.day !== day) continue;
    if (isCheck(e)) {
      const { gone } = readinessOf(e.what, entries, day);
      if (gone) stop(gone);
      continue;
    }
    if (isBefore(e)) {
      asked = true;
      const rule = ruleForToday(e.what);
      if (rule?.does === 'rest-today') stop(rule);
      else if (rule) lighter ??= rule.says;
      else if (e.what.tired) lighter ??= said('Tired today: one round is enough, and softer than usual.');
      continue;
    }
    if (!isDone(e)) continue;
    const { exerciseId, signs, effort } = e.what;
    const rules = [...signs.map(ruleForSign), ...(effort !== null && effort > MOST_EFFORT ? [ruleForSign('effort')] : [])];
    for (const rule of rules) {
      if (rule.does === 'rest-today') stop(rule);
      else if (rule.does === 'stop-item' && !left.has(exerciseId)) left.set(exerciseId, rule);
    }
    if (left.size >= MOST_STOPPED) stop([...left.values()][left.size - 1]);
  }
  return { stopped, left, lighter, asked };
}
