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

/** Sessions as an iCalendar file (RFC 5545), in floating local time: eight in the morning is eight wherever the singer is. */
export function toIcs(sessions: readonly Session[], calendar: string): string {
  const events = sessions.map((s): EventAttributes => {
    const [year, month, day] = s.day.split('-').map(Number);
    const start: DateArray = [year, month, day, Math.floor(s.minute / 60), s.minute % 60];
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
  const { error, value } = createEvents(events);
  if (error || typeof value !== 'string') throw error ?? new Error('The calendar could not be written.');
  return value;
}
