import { exerciseById } from '../exercise/shelf';
import { nextRung, Practised, propose, Step } from './progress';
import { inEnglish } from '../format/say';

/** A take so many days before the day it is looked at. */
const TODAY = '2026-11-27';
const on = (ago: number) => new Date(Date.parse(TODAY) - ago * 86_400_000).toISOString().slice(0, 10);
const took = (ago: number, success: boolean | null, more: Partial<Practised> = {}): Practised => ({
  day: on(ago),
  success,
  effort: 2,
  signs: [],
  ...more,
});
const [Y, N] = [true, false];
/** Takes of days that lie so many days back, each with how its takes went. */
const days = (...each: [ago: number, ...takes: (boolean | null)[]][]) => each.flatMap(([ago, ...takes]) => takes.map((s) => took(ago, s)));
const GOOD = days([4, Y, Y], [2, Y, N], [1, Y, Y]);

// The thresholds are common practice, no source.
test.each<[string, Practised[], Step]>([
  ['nothing yet', [], 'hold'],
  ['six of six, but on two days', days([2, Y, Y, Y], [1, Y, Y, Y]), 'hold'],
  ['five of six on three days', GOOD, 'advance'],
  ['the same, but the first two lie more than ten days back', days([14, Y, Y], [2, Y, N], [1, Y, Y]), 'hold'],
  ['four of six on three days', days([4, Y, Y], [2, Y, N], [1, Y, N]), 'hold'],
  ['how hard it was is not told', GOOD.map((p) => ({ ...p, effort: null })), 'hold'],
  ['a bad beginning long behind', days([20, N, N], [18, N, Y], [4, Y, Y], [2, Y, Y], [1, Y, Y]), 'advance'],
  ['one failed take on each of two days', days([2, N], [1, N]), 'hold'],
  ['one bad day', days([4, Y, Y], [2, Y, Y], [1, N, N, N]), 'hold'],
  ['two bad days of three', days([4, N, N, Y], [2, Y, Y, Y], [1, N, N, N]), 'step-back'],
  ['takes that were not judged do not count', days([4, Y, Y], [2, Y, null], [1, Y, null]), 'hold'],
  ['too hard today', [...GOOD, took(0, Y, { effort: 5 })], 'stop'],
  ['a scratch today', [...GOOD, took(0, Y, { signs: ['scratch'] })], 'stop'],
  ['a scratch yesterday: not stopped, but no advance within the week', [...GOOD, took(1, Y, { signs: ['scratch'] })], 'hold'],
  ['a tickle weeks ago as the last word stops nothing', [took(9, Y, { signs: ['tickle'] })], 'hold'],
  [
    'hoarse after, three times in two weeks, however well it went',
    [took(12, Y, { signs: ['hoarse'] }), took(8, Y, { signs: ['hoarse'] }), took(5, Y, { signs: ['hoarse'] }), ...GOOD],
    'ask',
  ],
  ['away for twelve days', days([16, Y, Y], [14, Y, Y], [12, Y, Y]), 'return'],
  ['sixty takes on thirty days, seven of ten right', Array.from({ length: 60 }, (_, i) => took(30 - (i >> 1), i % 10 < 7)), 'another-way'],
  ['fifteen takes that get better', Array.from({ length: 15 }, (_, i) => took(8 - (i >> 1), i > 7)), 'hold'],
])('%s', (_, practised, step) => {
  expect(propose(practised, TODAY).step).toBe(step);
});

test('what is not heard says so', () => {
  expect(inEnglish(propose([took(1, null)], TODAY).because)).toContain('let the phone listen');
  expect(
    inEnglish(
      propose(
        GOOD.map((p) => ({ ...p, effort: null })),
        TODAY,
      ).because,
    ),
  ).toContain('How hard it was is not told for 6');
});

test('one rung at a time: the next sound, then the pace, then the grade; slides and holds are harder slow, steps fast', () => {
  const siren = exerciseById('falling-siren');
  expect(nextRung({ sound: 'hoo', tempo: 76 }, siren, 1)).toEqual({ kind: 'sound', sound: 'oo' });
  expect(nextRung({ sound: 'wee', tempo: 76 }, siren, 1)).toEqual({ kind: 'tempo', tempo: 66 });
  expect(nextRung({ sound: 'wee', tempo: 66 }, siren, 1)).toEqual({ kind: 'grade', strand: 'crossing', grade: 2 });
  expect(nextRung({ sound: 'oo', tempo: 76 }, siren, -1)).toEqual({ kind: 'sound', sound: 'hoo' });
  expect(nextRung({ sound: 'hoo', tempo: 76 }, siren, -1)).toEqual({ kind: 'tempo', tempo: 88 });
  expect(nextRung({ sound: 'hoo', tempo: 88 }, siren, -1)).toEqual({ kind: 'grade', strand: 'crossing', grade: 1 });
  const steps = exerciseById('five-note-ah');
  expect(nextRung({ sound: 'ah', tempo: 100 }, steps, 1)).toEqual({ kind: 'tempo', tempo: 116 });
});
