import { followAlong } from './follow-along';
import { renderKey } from './render';
import { roundOf, thereAndBack } from './round';
import { SHELF } from './shelf';

test('keys go up, turn once at each end and come back', () => {
  expect(thereAndBack([60, 61, 62])).toEqual([60, 61, 62, 61]);
  expect(thereAndBack([60])).toEqual([60]);
  expect(roundOf(SHELF[0], [], 100, 1)).toEqual([]);
});

test('what is played is what was prescribed, to half a key, on the page as in the sound file', () => {
  for (const exercise of SHELF)
    for (const minutes of [0.5, 1, 1.5, 2, 3]) {
      const tempo = exercise.tempo[1];
      const keys = [55, 56, 57, 58];
      const keyS = renderKey(exercise, 55, tempo).totalS;
      const round = roundOf(exercise, keys, tempo, minutes);
      expect(Math.abs(round.length * keyS - minutes * 60)).toBeLessThanOrEqual(keyS / 2 + 1e-9);
      const { totalS } = followAlong([{ exercise, keys, tempo, minutes }]);
      expect(totalS).toBeCloseTo(round.length * keyS, 6);
    }
});
