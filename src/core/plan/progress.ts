import { Exercise, Strand } from '../exercise/types';
import { MOST_EFFORT, ruleForSign, Sign } from './safety';
import { PlanItem } from './types';

/** One time an exercise was practised: the day (any day's key), whether it succeeded (null: not measured), effort and signs told. */
export interface Practised {
  day: string;
  success: boolean | null;
  effort: number | null;
  signs: Sign[];
}

/** "Success in 80 % of six or more takes on three days; two bad days step back" (common practice, no source). */
const SHARE = 0.8;
const LEAST_TAKES = 6;
const LEAST_DAYS = 3;
const BAD_SHARE = 0.5;
const BAD_DAYS = 2;

export type Step = 'advance' | 'hold' | 'step-back' | 'stop';

export interface Proposal {
  step: Step;
  /** The figures it rests on, in words. */
  because: string;
}

/** What to do next with an exercise, from how it was practised, oldest first. The coach confirms. */
export function propose(practised: readonly Practised[]): Proposal {
  const last = practised[practised.length - 1];
  const sign = last?.signs.find((s) => ruleForSign(s).does !== 'gentler');
  if (last && (sign || (last.effort ?? 0) > MOST_EFFORT)) return { step: 'stop', because: ruleForSign(sign ?? 'effort').says };
  const measured = practised.filter((p) => p.success !== null);
  const days = [...new Set(measured.map((p) => p.day))];
  const share = (some: readonly Practised[]) => some.filter((p) => p.success).length / some.length;
  const onDay = (day: string) => measured.filter((p) => p.day === day);
  const latest = days.slice(-BAD_DAYS);
  if (latest.length === BAD_DAYS && latest.every((d) => share(onDay(d)) < BAD_SHARE))
    return { step: 'step-back', because: `It failed more often than not on the last ${BAD_DAYS} days.` };
  // The latest takes count: the shortest run back from today that is long enough.
  const from = days.slice(-LEAST_DAYS)[0];
  const recent = measured.filter((p) => days.indexOf(p.day) >= days.indexOf(from));
  const counted = recent.length >= LEAST_TAKES ? recent : measured.slice(-LEAST_TAKES);
  const over = new Set(counted.map((p) => p.day)).size;
  const figures = `${counted.filter((p) => p.success).length} of ${counted.length} takes on ${over} ${over === 1 ? 'day' : 'days'}`;
  if (counted.length >= LEAST_TAKES && over >= LEAST_DAYS && share(counted) >= SHARE)
    return { step: 'advance', because: `It succeeded in ${figures}.` };
  return {
    step: 'hold',
    because: counted.length ? `So far ${figures}; ${LEAST_TAKES} takes on ${LEAST_DAYS} days are wanted.` : 'Nothing measured yet.',
  };
}

/** One rung up: the next sound; the same sound a little faster; otherwise the next grade. */
export type Rung =
  { kind: 'sound'; sound: string } | { kind: 'tempo'; tempo: number } | { kind: 'grade'; strand: Strand; grade: number } | { kind: 'none' };

const HIGHEST_GRADE = 6;

/** One rung of difficulty up (+1) or down (-1) from where an item stands; never two at once. */
export function nextRung(item: Pick<PlanItem, 'sound' | 'tempo'>, e: Exercise, direction: 1 | -1): Rung {
  const sound = e.sounds[e.sounds.indexOf(item.sound) + direction];
  if (sound && e.sounds.includes(item.sound)) return { kind: 'sound', sound };
  const [slowest, , fastest] = e.tempo;
  const tempo = direction > 0 ? fastest : slowest;
  if (direction > 0 ? item.tempo < tempo : item.tempo > tempo) return { kind: 'tempo', tempo };
  const grade = e.grade + (direction > 0 ? 0 : -1);
  return grade >= 1 && grade <= HIGHEST_GRADE ? { kind: 'grade', strand: e.strand, grade } : { kind: 'none' };
}
