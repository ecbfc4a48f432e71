import { format, parseISO } from 'date-fns';
import { DAYS_A_WEEK } from '../../core/plan/types';
import { daysOfWeek } from '../../core/plan/days';

/** A day as "2026-11-25". */
export const dayKey = (date: Date): string => format(date, 'yyyy-MM-dd');

/** The seven days of a week that begins on a day: short and long names, and the date. */
export const weekFrom = (startsOn: string) =>
  daysOfWeek(startsOn).map((key) => {
    const date = parseISO(key);
    return { key, short: format(date, 'EEEEEE'), long: format(date, 'EEEE d MMMM') };
  });

/** Days in words: "every day", "Mo Tu We". */
export const daysInWords = (days: readonly number[], startsOn: string): string =>
  days.length === DAYS_A_WEEK
    ? 'every day'
    : weekFrom(startsOn)
        .filter((_, d) => days.includes(d))
        .map((d) => d.short)
        .join(' ');
