import { said, Said, SaidValue, texts } from '../words/said';
import { dayLater, daysBetween } from './days';
import type { OccasionId } from './occasions';
import { DAYS_A_WEEK } from './types';

export const DATE_KINDS = ['recital', 'show', 'audition', 'exam', 'tour', 'holiday', 'rehearsals'] as const;
export type DateKind = (typeof DATE_KINDS)[number];

/** Something in a singer's calendar that practice has to bend to; days as "2026-11-27". */
export interface RoadDate {
  day: string;
  /** The last day of what lasts longer than one. */
  until?: string;
  kind: DateKind;
  name?: string;
  /** Titles of the songs that are sung then, in their order. */
  songs?: string[];
}

/** A date so many days later (earlier where there are fewer than none), as long as before. */
export const dateLater = (date: RoadDate, days: number): RoadDate => ({
  ...date,
  day: dayLater(date.day, days),
  ...(date.until ? { until: dayLater(date.until, days) } : {}),
});

/** A date without a name of its own. */
const NAMES: Record<DateKind, string> = texts({
  recital: 'the recital',
  show: 'the show',
  audition: 'the audition',
  exam: 'the exam',
  tour: 'the tour',
  holiday: 'the holiday',
  rehearsals: 'the rehearsals',
});
const nameOf = ({ name, kind }: RoadDate): SaidValue => (name ? { own: name } : NAMES[kind]);

/** A song week goes on with less where a block of rehearsals or a tour asks for the voice. */
const BUSY_LOAD = 0.6;
const HOLIDAY_LOAD = 0.3;
const SUNG_IN_PUBLIC: readonly DateKind[] = ['recital', 'show', 'audition', 'exam'];
const BUSY: readonly DateKind[] = ['tour', 'rehearsals'];

/** A stretch before a date that is sung in public: so many days before it until so many, what it does to a week, and why. */
interface Countdown {
  from: number;
  until: number;
  load: number;
  /** Nothing new comes in. */
  nothingNew: boolean;
  test: boolean;
  /** What is done with the songs that are sung then. */
  songs: string;
  says(name: SaidValue): Said;
}

/** Songs of a date that is further away than all that. */
const FAR_SONGS = texts('their hard bars as exercises: on ng, on their vowels, then with the words');

/** What the days before a date ask for (common practice, no source). */
const COUNTDOWN: readonly Countdown[] = [
  {
    from: 42,
    until: 22,
    load: 1,
    nothingNew: true,
    test: true,
    songs: texts('in their keys, phrase by phrase'),
    says: (name) => said('Within six weeks of {name} no new technique begins.', { name }),
  },
  {
    from: 21,
    until: 15,
    load: 1,
    nothingNew: true,
    test: true,
    songs: texts('run through, two days a week'),
    says: (name) => said('Three weeks to {name}: run-throughs, and the keys are settled.', { name }),
  },
  {
    from: 14,
    until: 8,
    load: 0.8,
    nothingNew: true,
    test: true,
    songs: texts('run through in their order, one day; else only what isn’t sure yet'),
    says: (name) => said('Two weeks to {name}: four fifths of the load.', { name }),
  },
  {
    from: 7,
    until: 0,
    load: 0.7,
    nothingNew: true,
    test: false,
    songs: texts('marked: lightly, beginnings and words'),
    says: (name) => said('The last week before {name}: nothing new, no test.', { name }),
  },
];
/** A run of shows goes on through a week that it didn't begin in. */
const RUNNING: Omit<Countdown, 'from' | 'until'> = {
  load: 0.6,
  nothingNew: true,
  test: false,
  songs: texts('as they are sung there, and not beside'),
  says: (name) => said('On with {name}: what keeps the voice, and nothing more.', { name }),
};
/** The last days before it, the day itself and the day after. */
const LAST_DAYS = 3;
const LAST_DAYS_LOAD = 0.5;
const SHOW_LOAD = 0.4;
const RECOVERY_LOAD = 0.3;

/** The next day with something sung in public: how many days away, and all its songs; null when none is known. */
export function nextShow(dates: readonly RoadDate[], today: string): { days: number; songs: string[] } | null {
  const coming = dates.filter((d) => SUNG_IN_PUBLIC.includes(d.kind) && d.day >= today);
  const [next] = coming.map((d) => d.day).sort();
  if (next === undefined) return null;
  return { days: daysBetween(today, next), songs: [...new Set(coming.flatMap((d) => (d.day === next ? (d.songs ?? []) : [])))] };
}

/** Days from a day to it. */
export const daysToShow = (dates: readonly RoadDate[], today: string): number | null => nextShow(dates, today)?.days ?? null;

/** What a week does with songs. */
export interface WeekSongs {
  titles: string[];
  says: string;
}

/** Whether any day of a date lies in the week that begins on a day. */
const isInWeek = (startsOn: string, { day, until = day }: RoadDate): boolean =>
  daysBetween(startsOn, day) < DAYS_A_WEEK && daysBetween(startsOn, until) >= 0;

/** Which step of the countdown to a date a week stands at; undefined where it is further away, or over. */
function stepBefore(startsOn: string, date: RoadDate): Omit<Countdown, 'from' | 'until'> | undefined {
  const first = daysBetween(startsOn, date.day);
  return COUNTDOWN.find((c) => first <= c.from && first >= c.until) ?? (isInWeek(startsOn, date) ? RUNNING : undefined);
}

/** What a week does with the songs of the dates that are still to come. */
export const songsBefore = (startsOn: string, dates: readonly RoadDate[]): WeekSongs[] =>
  dates.flatMap((date) => {
    if (!date.songs?.length || !SUNG_IN_PUBLIC.includes(date.kind) || daysBetween(startsOn, date.until ?? date.day) < 0) return [];
    return [{ titles: date.songs, says: stepBefore(startsOn, date)?.songs ?? FAR_SONGS }];
  });

/** What the dates near a week do to it. */
export function weekBent(startsOn: string, dates: readonly RoadDate[]) {
  const bent = { load: 1, nothingNew: false, test: true, because: [] as Said[] };
  for (const date of dates) {
    const name = nameOf(date);
    const within = isInWeek(startsOn, date);
    if (SUNG_IN_PUBLIC.includes(date.kind)) {
      const step = stepBefore(startsOn, date);
      if (!step) continue;
      bent.load = Math.min(bent.load, step.load);
      bent.nothingNew ||= step.nothingNew;
      bent.test &&= step.test;
      bent.because.push(step.says(name));
    } else if (within && BUSY.includes(date.kind)) {
      bent.load = Math.min(bent.load, BUSY_LOAD);
      bent.nothingNew = true;
      bent.because.push(said('The voice is needed for {name}: three fifths of the load, nothing new.', { name }));
    } else if (within) {
      bent.load = Math.min(bent.load, HOLIDAY_LOAD);
      bent.nothingNew = true;
      bent.test = false;
      bent.because.push(said('Days of {name}: a few minutes to keep the voice moving.', { name }));
    }
  }
  return bent;
}

/** What dates make of a day that is not like the others. */
export interface DayBent {
  /** Share of the week's usual minutes. */
  load: number;
  /** The set that is sung in place of the week's work; null: the week's own. */
  set: OccasionId | null;
  /** Nothing that tests, adds weight or goes for range. */
  light: boolean;
  because: Said;
}

/** How a date bends one day: its own days, the days before, the day after; null where it doesn't. */
function bentBy(date: RoadDate, day: string): DayBent | null {
  const name = nameOf(date);
  const first = daysBetween(day, date.day);
  const last = daysBetween(day, date.until ?? date.day);
  const within = first <= 0 && last >= 0;
  if (date.kind === 'holiday')
    return within ? { load: HOLIDAY_LOAD, set: 'holiday', light: true, because: said('These are days of {name}.', { name }) } : null;
  if (!SUNG_IN_PUBLIC.includes(date.kind)) return null;
  if (within)
    return { load: SHOW_LOAD, set: 'show-day', light: true, because: said('The day of {name}: the show set, and no more.', { name }) };
  if (last === -1)
    return {
      load: RECOVERY_LOAD,
      set: 'recovery',
      light: true,
      because: said('The day after {name}: recovery, and silence as needed.', { name }),
    };
  if (first > 0 && first <= LAST_DAYS)
    return {
      load: LAST_DAYS_LOAD,
      set: null,
      light: true,
      because: said('{days, plural, one {A day} other {# days}} before {name}: half, and light.', { days: first, name }),
    };
  return null;
}

/** What the dates make of a day; of several a show’s own day, then the one that leaves least; null on a day like any other. */
export function dayBent(day: string, dates: readonly RoadDate[]): DayBent | null {
  const bent = dates.flatMap((date) => bentBy(date, day) ?? []);
  return bent.sort((a, b) => Number(b.set === 'show-day') - Number(a.set === 'show-day') || a.load - b.load)[0] ?? null;
}
