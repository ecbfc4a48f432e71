import { said, Said } from '../words/said';
import { Exercise, Strand } from '../exercise/types';
import { daysBetween } from './days';
import { MOST_EFFORT, ruleForSign, Sign, troubling } from './safety';
import { PlanItem } from './types';

/** One time an exercise was practised: the day ("2026-11-27"), whether it succeeded (null: not measured), effort and signs told. */
export interface Practised {
  day: string;
  success: boolean | null;
  effort: number | null;
  signs: Sign[];
}

/** "Success in 80 % of six or more takes on three of ten days" (common practice, no source). */
const SHARE = 0.8;
const LEAST_TAKES = 6;
const LEAST_DAYS = 3;
const WITHIN_DAYS = 10;
/** A take told harder than this counts for nothing; one whose effort wasn't told doesn't advance either. */
const CLEAN_DAYS = 7;
/** Two of the last three days under half of at least so many takes: too hard. */
const BAD_SHARE = 0.5;
const BAD_DAYS = 2;
const OF_DAYS = 3;
const BAD_TAKES = 3;
/** One sign this often within so many days is the coach's to hear. */
const SIGNS = 3;
const SIGN_DAYS = 14;
/** Flat for so long, or over so many takes: another way to the same end. */
const PLATEAU_DAYS = 21;
const PLATEAU_TAKES = 15;
/** The share of an earlier and a later half may differ by this and still be flat. */
const FLAT_SHARE = 0.15;
/** After so many days away the voice begins a grade lower. */
const AWAY_DAYS = 10;

export const STEPS = ['stop', 'ask', 'return', 'step-back', 'advance', 'another-way', 'hold'] as const;
export type Step = (typeof STEPS)[number];

export interface Proposal {
  step: Step;
  /** The figures it rests on, in words. */
  because: Said;
}

/** How an exercise was practised until a day, as every rule sees it. */
interface Record {
  all: readonly Practised[];
  today: string;
  /** Those that were judged, oldest first, and their days. */
  judged: readonly Practised[];
  days: readonly string[];
}

/** A rule of progress: what it proposes, and why, in words; null where it doesn't apply. */
interface ProgressRule {
  step: Step;
  because(record: Record): Said | null;
}

const within = (some: readonly Practised[], today: string, days: number) => some.filter((p) => daysBetween(p.day, today) < days);
const shareOf = (some: readonly Practised[]): number => some.filter((p) => p.success).length / some.length;
const dayCount = (some: readonly Practised[]): number => new Set(some.map((p) => p.day)).size;
const takesInWords = (some: readonly Practised[]): Said =>
  said('{right} of {of} takes on {days, plural, one {# day} other {# days}}', {
    right: some.filter((p) => p.success).length,
    of: some.length,
    days: dayCount(some),
  });

const NOTHING_YET = said('Nothing measured yet.');

/** The first that applies decides; common practice, no source. */
const PROGRESS_RULES: readonly ProgressRule[] = [
  {
    step: 'stop',
    because({ all, today }) {
      const now = all.filter((p) => p.day === today);
      const sign = now.flatMap((p) => p.signs).find(troubling) ?? (now.some((p) => (p.effort ?? 0) > MOST_EFFORT) ? 'effort' : undefined);
      return sign ? ruleForSign(sign).says : null;
    },
  },
  {
    step: 'ask',
    because({ all, today }) {
      const signs = within(all, today, SIGN_DAYS).flatMap((p) => p.signs.filter(troubling));
      const often = signs.find((s) => signs.filter((other) => other === s).length >= SIGNS);
      return often
        ? said('{times} times within {days} days the same was told: hear it yourself before anything goes on.', {
            times: SIGNS,
            days: SIGN_DAYS,
          })
        : null;
    },
  },
  {
    step: 'return',
    because({ all, today }) {
      const last = all[all.length - 1];
      const away = last ? daysBetween(last.day, today) : 0;
      return away > AWAY_DAYS
        ? said('Not sung for {days} days: begin a grade lower, with half the time for two days.', { days: away })
        : null;
    },
  },
  {
    step: 'step-back',
    because({ judged, days }) {
      const bad = days.slice(-OF_DAYS).filter((day) => {
        const of = judged.filter((p) => p.day === day);
        return of.length >= BAD_TAKES && shareOf(of) < BAD_SHARE;
      });
      return bad.length >= BAD_DAYS
        ? said('It failed more often than not on {bad} of the last {days} days.', { bad: bad.length, days: OF_DAYS })
        : null;
    },
  },
  {
    step: 'advance',
    because({ all, judged, today }) {
      const clean = within(all, today, CLEAN_DAYS).every((p) => !p.signs.some(troubling));
      const told = within(judged, today, WITHIN_DAYS).filter((p) => p.effort !== null && p.effort <= MOST_EFFORT);
      const enough = told.length >= LEAST_TAKES && dayCount(told) >= LEAST_DAYS && shareOf(told) >= SHARE;
      return clean && enough ? said('It succeeded in {takes}, easily. Hear it once yourself.', { takes: takesInWords(told) }) : null;
    },
  },
  {
    step: 'another-way',
    because({ judged, today }) {
      const since = judged.length ? daysBetween(judged[0].day, today) : 0;
      if (judged.length < LEAST_TAKES || (judged.length < PLATEAU_TAKES && since < PLATEAU_DAYS)) return null;
      const latest = judged.slice(-Math.max(PLATEAU_TAKES, judged.length >> 1));
      const half = latest.length >> 1;
      const flat = shareOf(latest.slice(half)) - shareOf(latest.slice(0, half)) <= FLAT_SHARE;
      return flat && shareOf(latest) < SHARE
        ? said('Flat for a while ({takes}): another exercise to the same end, an easier sound, or a week of rest from it.', {
            takes: takesInWords(latest),
          })
        : null;
    },
  },
  {
    step: 'hold',
    because({ judged, all, today }) {
      const recent = within(judged, today, WITHIN_DAYS);
      if (recent.length === 0) return all.length ? said('Practised, but nothing of it was heard: let the phone listen.') : NOTHING_YET;
      const untold = recent.filter((p) => p.effort === null).length;
      return said(
        'So far {takes}; {least} takes on {days} days are wanted, four of five right and easy.{untold, plural, =0 {} other { How hard it was is not told for #.}}',
        { takes: takesInWords(recent), least: LEAST_TAKES, days: LEAST_DAYS, untold },
      );
    },
  },
];

/** What to do next with an exercise, from how it was practised until a day ("2026-11-27"), oldest first. The coach confirms. */
export function propose(all: readonly Practised[], today: string): Proposal {
  const judged = all.filter((p) => p.success !== null);
  const record: Record = { all, today, judged, days: [...new Set(judged.map((p) => p.day))] };
  for (const { step, because } of PROGRESS_RULES) {
    const says = because(record);
    if (says !== null) return { step, because: says };
  }
  return { step: 'hold', because: NOTHING_YET };
}

/** One rung up: the next sound; the same sound at a harder pace; otherwise the next grade. */
export type Rung =
  { kind: 'sound'; sound: string } | { kind: 'tempo'; tempo: number } | { kind: 'grade'; strand: Strand; grade: number } | { kind: 'none' };

const HIGHEST_GRADE = 6;

/** What is slid or held is harder slow; what is stepped is harder fast. */
const harderSlow = (e: Pick<Exercise, 'steps' | 'measure'>): boolean => e.measure === 'holds' || e.steps.some((s) => s.slide);

/** One rung of difficulty up (+1) or down (-1) from where an item stands; never two at once. */
export function nextRung(item: Pick<PlanItem, 'sound' | 'tempo'>, e: Exercise, direction: 1 | -1): Rung {
  const sound = e.sounds[e.sounds.indexOf(item.sound) + direction];
  if (sound && e.sounds.includes(item.sound)) return { kind: 'sound', sound };
  const [slowest, , fastest] = e.tempo;
  const faster = direction > 0 !== harderSlow(e);
  const tempo = faster ? fastest : slowest;
  if (faster ? item.tempo < tempo : item.tempo > tempo) return { kind: 'tempo', tempo };
  const grade = e.grade + (direction > 0 ? 0 : -1);
  return grade >= 1 && grade <= HIGHEST_GRADE ? { kind: 'grade', strand: e.strand, grade } : { kind: 'none' };
}
