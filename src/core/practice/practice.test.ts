import { additiveTone } from '../sim/tones';
import { analyseTake } from '../take/analyse';
import { loadOf } from './load';
import { daysOf, inShort, kept, practisedOf, wordsIn } from './log';
import { before, done as sung } from './made-log';
import { standing } from './standing';
import { Before, Done, Entry } from './types';

let n = 0;
const entry = (what: Before | Done, day = '2026-11-25'): Entry => ({
  id: `${n}`,
  assignmentId: null,
  day,
  at: `${day}T08:00:${String(n++ % 60).padStart(2, '0')}Z`,
  what,
});
const done = (exerciseId: string, more: Partial<Done> = {}) => sung({ exerciseId, name: exerciseId, tempo: 90, ...more });
const day = '2026-11-25';

describe('where practice stands (common practice, no source)', () => {
  test('all well: nothing is stopped, nothing left', () => {
    expect(standing([entry(before()), entry(done('a'))], day)).toEqual({ stopped: null, left: new Map(), lighter: null, asked: true });
  });
  test('pain before: no practice today', () => {
    expect(standing([entry(before({ pain: true }))], day).stopped?.says).toMatch(/hurts: nothing is sung/);
  });
  test.each(['ill', 'hoarse'] as const)('%s before: lighter, not stopped', (what) => {
    const words = what === 'ill' ? 'Ill' : 'Hoarse';
    expect(standing([entry(before({ [what]: true }))], day)).toMatchObject({ stopped: null, lighter: expect.stringContaining(words) });
  });
  test('tired before: one round', () => {
    expect(standing([entry(before({ tired: true }))], day).lighter).toMatch(/one round/);
  });
  test('a scratch stops that exercise; a second sign the day; an effort of five counts; pain ends it at once', () => {
    const scratch = entry(done('a', { signs: ['scratch'] }));
    expect([...standing([scratch], day).left.keys()]).toEqual(['a']);
    expect(standing([scratch], day).stopped).toBeNull();
    expect(standing([scratch, entry(done('b', { effort: 5 }))], day).stopped?.id).toBe('effort');
    expect(standing([entry(done('a', { signs: ['pain'] }))], day).stopped?.does).toBe('rest-today');
  });
  test('it can’t be practised through: saying afterwards that all is well takes nothing back', () => {
    expect(standing([entry(before({ pain: true })), entry(before()), entry(done('a'))], day).stopped).not.toBeNull();
    // Another day is another day.
    expect(standing([entry(before({ pain: true }), '2026-11-24')], day).stopped).toBeNull();
  });
});

test('cycle dose: ten seconds at A4 are 4400 cycles (worked by hand: 440 a second)', () => {
  const { trace } = analyseTake(additiveTone({ seconds: 10, hz: () => 440, sampleRate: 22050 }), 'sustain');
  const load = loadOf(trace);
  expect(load.voicedS).toBeCloseTo(10, 0);
  expect(Math.abs(load.cycles - 4400)).toBeLessThan(45);
  expect(loadOf({ midi: Array(1000).fill(69), hopS: 0.01 })).toEqual({ voicedS: 10, cycles: 4400 });
});

test('days, what was practised of an exercise, and how much of the week was kept', () => {
  const log = [
    entry(done('a', { seconds: 90, success: true }), '2026-11-23'),
    entry(done('b', { signs: ['tight'] }), '2026-11-23'),
    entry(done('a'), '2026-11-25'),
  ];
  expect(daysOf(log).map((d) => [d.day, d.minutes, d.items, d.trouble])).toEqual([
    ['2026-11-23', 2.5, 2, true],
    ['2026-11-25', 1, 1, false],
  ]);
  expect(practisedOf(log, 'a').map((p) => [p.day, p.success])).toEqual([
    ['2026-11-23', true],
    ['2026-11-25', null],
  ]);
  const practised = ['2026-11-18', '2026-11-23', '2026-11-25'];
  expect(kept([{ days: [0, 1, 2, 3] }], '2026-11-23', practised, '2026-11-25')).toEqual({ done: 2, of: 3 });

  // In short, for the list of a studio: today still has time, and a week that is over says nothing.
  const assigned = { startsOn: '2026-11-23', days: [0, 1, 2, 3] };
  expect(inShort(assigned, practised, '2026-11-25', '2026-11-25')).toEqual({ week: { done: 1, of: 2 }, days: 2, last: '2026-11-25' });
  expect(inShort(assigned, practised, '2026-11-25', '2026-11-23').week).toBeNull();
  expect(inShort(assigned, practised, '2026-11-25', '2026-11-30').week).toEqual({ done: 2, of: 4 });
  expect(inShort(assigned, [], null, '2026-12-01')).toEqual({ week: null, days: 0, last: null });
});

test('words of the singer’s own come newest first; those that were answered can be left out', () => {
  const lines = [
    entry(before()),
    entry(done('a', { word: 'first' })),
    entry(done('b')),
    { ...entry(done('c', { word: 'answered' })), answer: 'Yes.' },
    entry(done('d', { word: 'last' }), '2026-11-26'),
  ];
  expect(wordsIn(lines).map((w) => [w.name, w.word, w.answer])).toEqual([
    ['d', 'last', undefined],
    ['c', 'answered', 'Yes.'],
    ['a', 'first', undefined],
  ]);
  expect(wordsIn(lines, true).map((w) => w.word)).toEqual(['last', 'first']);
});
