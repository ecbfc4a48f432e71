import { dayLater } from '../plan/days';
import { noticesOf, returnShare, Urgency } from './health';
import { before, done, lineOn } from './made-log';
import type { Before, Done, Entry } from './types';

const TODAY = '2026-11-27';
const ago = (days: number) => dayLater(TODAY, -days);
const told = (day: string, more: Partial<Before> = {}) => lineOn(day, before(more));
const after = (day: string, signs: Done['signs']) => lineOn(day, done({ signs }));
const days = (n: number, of: (i: number) => Entry) => Array.from({ length: n }, (_, i) => of(i));
const NOBODY: Urgency = { professional: false, daysToShow: null };
const ids = (log: Entry[], urgency = NOBODY) => noticesOf(log, TODAY, urgency).map((n) => n.id);

// Thresholds: AAO-HNSF guideline (four weeks at the latest), from memory; the shorter forms are common practice, no source.
test('hoarse on ten of fourteen days, or three weeks without a clear day, is a doctor’s; nine days, or a clear one between, is not', () => {
  expect(ids(days(10, (i) => told(ago(i), { hoarse: true })))).toEqual(['hoarse-long']);
  expect(ids(days(9, (i) => told(ago(i), { hoarse: true })))).toEqual([]);
  const weekly = [20, 13, 6, 1].map((d) => told(ago(d), { hoarse: true }));
  expect(ids(weekly)).toEqual(['hoarse-long']);
  expect(ids([...weekly, told(ago(10))])).toEqual([]);
});

test('who lives by the voice, or sings in public within two weeks, is sent after one', () => {
  const week = [6, 4, 2, 0].map((d) => told(ago(d), { hoarse: true }));
  expect(ids(week)).toEqual([]);
  expect(ids(week, { professional: true, daysToShow: null })).toEqual(['hoarse-urgent']);
  expect(ids(week, { professional: false, daysToShow: 12 })).toEqual(['hoarse-urgent']);
  expect(ids(week, { professional: false, daysToShow: 20 })).toEqual([]);
  expect(ids([...week, told(ago(3))], { professional: true, daysToShow: null })).toEqual([]);
});

test('hoarse after singing on three days of fourteen holds range work; pain on two days is a doctor’s', () => {
  expect(ids([1, 5, 9].map((d) => after(ago(d), ['hoarse'])))).toEqual(['hoarse-after-often']);
  expect(ids([1, 5, 15].map((d) => after(ago(d), ['hoarse'])))).toEqual([]);
  expect(ids([told(ago(1), { pain: true }), after(ago(4), ['pain'])])).toEqual(['pain-again']);
});

test('the way back takes three days', () => {
  const ill = [told(ago(1), { ill: true })];
  const on = (day: string) => returnShare(ill, day);
  expect([on(TODAY), on(dayLater(TODAY, 1)), on(dayLater(TODAY, 2)), on(dayLater(TODAY, 3))]).toEqual([0.3, 0.6, 0.8, 1]);
  expect(returnShare([told(ago(1))], TODAY)).toBe(1);
});
