import { DAYS_A_WEEK, PlanItem } from './types';

/** "About 5 to 10 minutes a set" and "beginners 15 to 20 minutes a day in all" (common practice, no source). */
export const SET_MINUTES = 10;
export const DAY_MINUTES = 20;
const LEAST_ITEM_MINUTES = 0.5;
export const STEP_MINUTES = 0.5;

type Dosed = Pick<PlanItem, 'minutes' | 'timesADay' | 'days'>;

/** Minutes of one time through what is sung on a day of the week. */
export const setMinutes = (items: readonly Dosed[], day: number): number =>
  items.reduce((sum, it) => sum + (it.days.includes(day) ? it.minutes : 0), 0);

/** Minutes in all on a day of the week. */
export const dayMinutes = (items: readonly Dosed[], day: number): number =>
  items.reduce((sum, it) => sum + (it.days.includes(day) ? it.minutes * it.timesADay : 0), 0);

export const weekMinutes = (item: Dosed): number => item.minutes * item.timesADay * item.days.length;

/** The days of a week, 0 the first. */
export const WEEK = Array.from({ length: DAYS_A_WEEK }, (_, d) => d);

/** The fullest day of a week: minutes of a set and of the day. */
export const fullest = (items: readonly Dosed[]) => ({
  set: Math.max(...WEEK.map((d) => setMinutes(items, d))),
  day: Math.max(...WEEK.map((d) => dayMinutes(items, d))),
});

/**
 * Bring a week within the dose: the longest items shrink first (never under half a minute), then the counts a day fall, and
 * when that is not enough the first of `expendable` that is still there goes. Answers what stays and what had to go.
 */
export function withinDose(
  items: readonly PlanItem[],
  minutesADay: number,
  expendable: readonly PlanItem['part'][],
): { items: PlanItem[]; dropped: PlanItem[] } {
  let out = items.map((it) => ({ ...it }));
  const dropped: PlanItem[] = [];
  const last = (best: (a: PlanItem, b: PlanItem) => boolean) => out.reduce((a, b) => (best(b, a) ? b : a));
  // A voice so narrow that nothing fits it has no plan, and no dose.
  while (out.length > 0) {
    const { set, day } = fullest(out);
    const longest = last((b, a) => b.minutes > a.minutes);
    const most = last((b, a) => b.timesADay > a.timesADay);
    if (set > Math.min(SET_MINUTES, minutesADay) && longest.minutes > LEAST_ITEM_MINUTES) longest.minutes -= STEP_MINUTES;
    else if (day > minutesADay && most.timesADay > 1) most.timesADay--;
    else if (day > minutesADay && longest.minutes > LEAST_ITEM_MINUTES) longest.minutes -= STEP_MINUTES;
    else if (day > minutesADay || set > SET_MINUTES) {
      const part = expendable.find((p) => out.some((it) => it.part === p));
      const goes = part && [...out].reverse().find((it) => it.part === part);
      if (!goes) return { items: out, dropped };
      dropped.push(goes);
      out = out.filter((it) => it !== goes);
    } else break;
  }
  return { items: out, dropped };
}
