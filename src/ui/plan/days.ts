import { type Language, LOCALES } from '../../core/format/say';
import { said, Said } from '../../core/words/said';
import { format, parseISO } from 'date-fns';
import { DAYS_A_WEEK } from '../../core/plan/types';
import { daysOfWeek } from '../../core/plan/days';

/** A day as "2026-11-25". */
export const dayKey = (date: Date): string => format(date, 'yyyy-MM-dd');

/** The seven days of a week that begins on a day: short and long names, and the date. */
export const weekFrom = (startsOn: string, language: Language = 'en') => {
  const inWords = (options: Intl.DateTimeFormatOptions) => new Intl.DateTimeFormat(LOCALES[language], options);
  const [short, long] = [inWords({ weekday: 'short' }), inWords({ weekday: 'long', day: 'numeric', month: 'long' })];
  return daysOfWeek(startsOn).map((key) => {
    const date = parseISO(key);
    // In these languages two letters tell a day.
    return { key, monday: date.getDay() === 1, short: short.format(date).slice(0, 2), long: long.format(date) };
  });
};

/** Days in words: "every day", "Mo Tu We". */
export const daysInWords = (days: readonly number[], startsOn: string, language: Language): Said =>
  days.length === DAYS_A_WEEK
    ? said('every day')
    : weekFrom(startsOn, language)
        .filter((_, d) => days.includes(d))
        .map((d) => d.short)
        .join(' ');
