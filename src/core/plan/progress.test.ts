import { exerciseById } from '../exercise/shelf';
import { nextRung, Practised, propose } from './progress';

const took = (day: number, success: boolean | null, more: Partial<Practised> = {}): Practised => ({
  day: `day ${day}`,
  success,
  effort: 2,
  signs: [],
  ...more,
});
const days = (...each: (boolean | null)[][]) => each.flatMap((takes, d) => takes.map((s) => took(d, s)));

// The thresholds are the project's own statement of common practice, no source.
test.each<[string, Practised[], string]>([
  ['nothing yet', [], 'hold'],
  ['six of six, but on two days', days([true, true, true], [true, true, true]), 'hold'],
  ['five of six on three days', days([true, true], [true, false], [true, true]), 'advance'],
  ['four of six on three days', days([true, true], [true, false], [true, false]), 'hold'],
  ['a bad beginning long behind', days([false, false], [false, true], [true, true], [true, true], [true, true]), 'advance'],
  ['one bad day', days([true, true], [true, true], [false, false]), 'hold'],
  ['two bad days', days([true, true], [false, false, true], [false, false]), 'step-back'],
  ['takes that were not measured do not count', days([true, true], [true, null], [true, null]), 'hold'],
  ['effort of five', [...days([true, true], [true, true], [true]), took(3, true, { effort: 5 })], 'stop'],
  ['a scratch', [...days([true, true], [true, true], [true]), took(3, true, { signs: ['scratch'] })], 'stop'],
])('%s', (_, practised, step) => {
  expect(propose(practised).step).toBe(step);
});

test('one rung at a time: the next sound, then the pace, then the grade; and back the same way', () => {
  const siren = exerciseById('falling-siren');
  expect(nextRung({ sound: 'hoo', tempo: 76 }, siren, 1)).toEqual({ kind: 'sound', sound: 'oo' });
  expect(nextRung({ sound: 'wee', tempo: 76 }, siren, 1)).toEqual({ kind: 'tempo', tempo: 88 });
  expect(nextRung({ sound: 'wee', tempo: 88 }, siren, 1)).toEqual({ kind: 'grade', strand: 'crossing', grade: 2 });
  expect(nextRung({ sound: 'oo', tempo: 76 }, siren, -1)).toEqual({ kind: 'sound', sound: 'hoo' });
  expect(nextRung({ sound: 'hoo', tempo: 66 }, siren, -1)).toEqual({ kind: 'grade', strand: 'crossing', grade: 1 });
});
