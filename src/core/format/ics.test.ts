import ICAL from 'ical.js';
import { setsOf } from '../plan/sessions';
import { PlanItem } from '../plan/types';
import { daysToIcs, toIcs } from './ics';

const item = (exerciseId: string, minutes: number, timesADay: number, days: number[]) =>
  ({ exerciseId, minutes, timesADay, days }) as PlanItem;

test('sets of a day: what is sung n times stands in the first n; rest lies between', () => {
  const sets = setsOf([item('a', 2, 3, [0]), item('b', 1, 1, [0, 1])]);
  expect(sets.map((s) => [s.day, s.minute, s.minutes])).toEqual([
    [0, 480, 3],
    [0, 840, 2],
    [0, 1200, 2],
    [1, 780, 1],
  ]);
});

test('an RFC 5545 parser of the registry reads the calendar as meant', () => {
  const text = toIcs(
    [{ id: 'x', day: '2027-02-28', minute: 8 * 60 + 5, minutes: 9.5, title: 'Practice; warm-up, straw', words: 'One\nTwo, three' }],
    'Maren',
  );
  const [event] = new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
  expect(event.startDate.toString()).toBe('2027-02-28T08:05:00');
  // Floating: eight is eight wherever the singer is.
  expect(event.startDate.zone?.tzid).toBe('floating');
  expect(event.duration.toSeconds()).toBe(600);
  expect(event.summary).toBe('Practice; warm-up, straw');
  expect(event.description).toBe('One\nTwo, three');
  expect(event.uid).toBe('x@wendel');
  // Lines end in CRLF and hold at most 75 octets (RFC 5545, 3.1).
  for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75);
});

test('a week of the road is whole days from its first to before the next', () => {
  const text = daysToIcs([{ id: 'w', day: '2027-02-22', days: 7, title: 'Week 1: Join', words: 'Long siren' }], 'Maren: the road');
  const [event] = new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent').map((e) => new ICAL.Event(e));
  expect([event.startDate.toString(), event.startDate.isDate, event.duration.toSeconds()]).toEqual(['2027-02-22', true, 7 * 86_400]);
  expect(event.component.getAllSubcomponents('valarm')).toEqual([]);
});
