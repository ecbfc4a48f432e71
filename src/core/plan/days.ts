import { DAYS_A_WEEK } from './types';

const DAY_MS = 86_400_000;

/** A day ("2026-11-25") so many days later; earlier where negative. */
export const dayLater = (day: string, days: number): string => new Date(Date.parse(day) + days * DAY_MS).toISOString().slice(0, 10);

/** Days from one day to another; negative where it lies before. @example daysBetween('2026-11-25', '2026-11-27') // 2 */
export const daysBetween = (from: string, to: string): number => Math.round((Date.parse(to) - Date.parse(from)) / DAY_MS);

/** The seven days of a week that begins on a day. */
export const daysOfWeek = (startsOn: string): string[] => Array.from({ length: DAYS_A_WEEK }, (_, d) => dayLater(startsOn, d));
