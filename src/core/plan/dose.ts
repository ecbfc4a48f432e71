import { PlanItem } from './types';

/** "About 5 to 10 minutes a set" and "beginners 15 to 20 minutes a day in all" (common practice, no source). */
export const SET_MINUTES = 10;
export const DAY_MINUTES = 20;
const LEAST_ITEM_MINUTES = 1;

export const setMinutes = (items: Pick<PlanItem, 'minutes'>[]): number => items.reduce((sum, it) => sum + it.minutes, 0);
export const dayMinutes = (items: Pick<PlanItem, 'minutes' | 'timesADay'>[]): number =>
  items.reduce((sum, it) => sum + it.minutes * it.timesADay, 0);

/** Bring a set within the dose: the longest items shrink first (never under a minute), then the counts a day fall. */
export function withinDose(items: PlanItem[]): PlanItem[] {
  const out = items.map((it) => ({ ...it }));
  const longest = () => out.reduce((a, b) => (b.minutes > a.minutes ? b : a));
  while (setMinutes(out) > SET_MINUTES && longest().minutes > LEAST_ITEM_MINUTES) longest().minutes -= 0.5;
  const most = () => out.reduce((a, b) => (b.timesADay > a.timesADay ? b : a));
  while (dayMinutes(out) > DAY_MINUTES && most().timesADay > 1) most().timesADay--;
  return out;
}
