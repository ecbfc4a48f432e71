import { DAYS_A_WEEK, PlanItem } from './types';

/** Sets of a day are spread between these hours (minutes after midnight), so that rest lies between them. */
const FIRST = 8 * 60;
const LAST = 20 * 60;
const USUAL_SETS_AT = 13 * 60;

export interface SetOfDay {
  /** 0 the first day of the week. */
  day: number;
  minute: number;
  minutes: number;
  items: PlanItem[];
}

/** The sets of a week: an item that is sung n times a day stands in the first n sets of it. */
export function setsOf(items: readonly PlanItem[]): SetOfDay[] {
  return Array.from({ length: DAYS_A_WEEK }, (_, day) => {
    const today = items.filter((it) => it.days.includes(day));
    const sets = Math.max(0, ...today.map((it) => it.timesADay));
    return Array.from({ length: sets }, (_, n): SetOfDay => {
      const sung = today.filter((it) => it.timesADay > n);
      const minute = sets === 1 ? USUAL_SETS_AT : FIRST + Math.round(((LAST - FIRST) * n) / (sets - 1));
      return { day, minute, minutes: sung.reduce((sum, it) => sum + it.minutes, 0), items: sung };
    });
  }).flat();
}
