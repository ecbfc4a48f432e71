import { DAYS_A_WEEK, PlanItem } from '../plan/types';
import { Practised } from '../plan/progress';
import { dayLater, daysOfWeek } from '../plan/days';
import { elsewhereOn } from './elsewhere';
import { addLoads } from './load';
import { ruleForToday } from '../plan/safety';
import { Entry, isBefore, isDone, Load, wentWell } from './types';

/** What was practised on a day. */
export interface DayLog {
  day: string;
  minutes: number;
  items: number;
  /** Minutes of other singing: rehearsal, choir, teaching. */
  elsewhere: number;
  load: Load;
  /** Something was told that a coach should know of. */
  trouble: boolean;
}

const troubled = (e: Entry): boolean => (isDone(e) ? e.what.signs.length > 0 : isBefore(e) && ruleForToday(e.what) !== null);

/** Days with anything on them, oldest first. */
export function daysOf(entries: readonly Entry[]): DayLog[] {
  const days = new Map<string, Entry[]>();
  for (const e of entries) days.set(e.day, [...(days.get(e.day) ?? []), e]);
  return [...days.entries()]
    .sort(([a], [b]) => a.localeCompare(b))
    .map(([day, of]) => {
      const done = of.filter(isDone);
      return {
        day,
        minutes: done.reduce((sum, e) => sum + e.what.seconds, 0) / 60,
        items: done.length,
        elsewhere: elsewhereOn(of, day).reduce((sum, { minutes }) => sum + minutes, 0),
        load: addLoads(done.map((e) => e.what.load)),
        trouble: of.some(troubled),
      };
    });
}

/** How an exercise was practised, oldest first: what a proposal to advance rests on. */
export const practisedOf = (entries: readonly Entry[], exerciseId: string): Practised[] =>
  entries
    .filter(isDone)
    .filter((e) => e.what.exerciseId === exerciseId)
    .sort((a, b) => a.at.localeCompare(b.at))
    .map((e) => ({ day: e.day, success: wentWell(e), effort: e.what.effort, signs: e.what.signs }));

export interface Kept {
  done: number;
  of: number;
}

/** Of the days of a week until today that have work on them, how many were practised on. */
export function kept(items: readonly Pick<PlanItem, 'days'>[], startsOn: string, practised: readonly string[], today: string): Kept {
  const due = daysOfWeek(startsOn).filter((day, d) => day <= today && items.some((it) => it.days.includes(d)));
  return { done: due.filter((day) => practised.includes(day)).length, of: due.length };
}

/** How somebody practises, in short. */
export interface PractisedInShort {
  /** Of the assigned week's days with work before today; null: none yet, or the week is over. */
  week: Kept | null;
  /** On how many of the last seven days. */
  days: number;
  /** The last day with anything on it. */
  last: string | null;
}

/** Words of the singer's own, written or spoken (then `word` may be null), newest first; `open`: only those the coach hasn't answered. */
export const wordsIn = (entries: readonly Entry[], open = false) =>
  entries
    .flatMap(({ id, day, at, answer, what }) =>
      what.kind === 'item' && (what.word || what.spokenS) && !(open && answer)
        ? [{ id, day, at, name: what.name, word: what.word ?? null, answer }]
        : [],
    )
    .sort((a, b) => b.at.localeCompare(a.at));

/** How somebody practises, from the newest assigned week and the days since a week ago with practice on them. */
export function inShort(
  assigned: { startsOn: string; days: number[] } | null,
  practisedOn: readonly string[],
  last: string | null,
  today: string,
): PractisedInShort {
  const yesterday = dayLater(today, -1);
  const running = assigned && yesterday < dayLater(assigned.startsOn, DAYS_A_WEEK);
  const week = running ? kept([assigned], assigned.startsOn, practisedOn, yesterday) : null;
  const weekAgo = dayLater(today, -7);
  return { week: week?.of ? week : null, days: practisedOn.filter((day) => day > weekAgo).length, last };
}
