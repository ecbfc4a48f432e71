import type { Trace } from '../take/types';
import { ASIDE_S, crossingIn } from './crossings';
import type { Vote } from './types';

/** Ten seconds that rise from 50 by a semitone a second, nobody singing from the eighth on. */
const trace: Trace = {
  hopS: 0.01,
  midi: Array.from({ length: 1000 }, (_, i) => (i < 800 ? 50 + i / 100 : 0)),
  levelDb: Array.from({ length: 1000 }, () => -20),
  head: Array.from({ length: 1000 }, (_, i) => i / 1000),
};
const at = (timeS: number) =>
  crossingIn(trace, {
    takeId: 'a',
    leg: 0,
    timeS,
    midi: 54,
    direction: 'up',
    kind: 'flip',
    widthSt: 1,
    weight: 1,
    source: 'machine',
  } as Vote);

test('the change lies in the middle, whatever the take; what comes before and after lies as it was sung', () => {
  const { pitch, head, hopS, takeId, kind } = at(4);
  const middle = (pitch.length - 1) / 2;
  expect([takeId, kind, pitch[middle], head[middle]]).toEqual(['a', 'flip', 54, 0.4]);
  expect(middle * hopS).toBeCloseTo(ASIDE_S, 6);
  expect(pitch[0]).toBeCloseTo(54 - ASIDE_S, 6);
  expect(pitch.at(-1)).toBeCloseTo(54 + ASIDE_S, 6);
});

test('nobody sings where nobody sang, nor beyond the ends of the take', () => {
  const late = at(7.5);
  expect(late.pitch.filter((p) => p === 0)).not.toHaveLength(0);
  expect(late.pitch.at(-1)).toBe(0);
  const early = at(0.2);
  expect(early.pitch[0]).toBe(0);
  expect(early.pitch).toHaveLength(late.pitch.length);
  expect(early.pitch[(early.pitch.length - 1) / 2]).toBeCloseTo(50.2, 6);
});
