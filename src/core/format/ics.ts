import { createEvents, DateArray, EventAttributes } from 'ics';

/** A practice session in a calendar. */
export interface Session {
  id: string;
  /** Local day, "2026-11-25", and minutes after midnight. */
  day: string;
  minute: number;
  minutes: number;
  title: string;
  words: string;
}

/** The calendar calls so long before a session. */
const REMIND_MINUTES = 5;

/** Something of a whole day (or several) in a calendar. */
export interface WholeDay {
  id: string;
  /** Local day, "2026-11-25", and how many days it lasts. */
  day: string;
  days: number;
  title: string;
  words: string;
}

const dateArray = (day: string) => day.split('-').map(Number) as [number, number, number];

/** Sessions as an iCalendar file (RFC 5545), in floating local time: eight in the morning is eight wherever the singer is. */
export function toIcs(sessions: readonly Session[], calendar: string): string {
  const events = sessions.map((s): EventAttributes => {
    const start: DateArray = [...dateArray(s.day), Math.floor(s.minute / 60), s.minute % 60];
    return {
      uid: `${s.id}@wendel`,
      start,
      startInputType: 'local',
      startOutputType: 'local',
      duration: { minutes: Math.max(1, Math.ceil(s.minutes)) },
      title: s.title,
      description: s.words,
      calName: calendar,
      productId: 'Wendel',
      alarms: [{ action: 'display', description: s.title, trigger: { before: true, minutes: REMIND_MINUTES } }],
    };
  });
  return written(events);
}

/** Whole days as an iCalendar file (RFC 5545); nobody is reminded of them. */
export const daysToIcs = (days: readonly WholeDay[], calendar: string): string =>
  written(
    days.map(({ id, day, days, title, words }): EventAttributes => ({
      uid: `${id}@wendel`,
      start: dateArray(day),
      duration: { days },
      title,
      description: words,
      calName: calendar,
      productId: 'Wendel',
    })),
  );

function written(events: EventAttributes[]): string {
  const { error, value } = createEvents(events);
  if (error || typeof value !== 'string') throw error ?? new Error('The calendar could not be written.');
  return value;
}
