import type { Leg } from '../take/types';
import { overNoise } from './over-noise';

const leg = (...rows: (number | null)[][]): Leg =>
  ({ direction: 'up', harmonics: rows.map((db, i) => ({ midi: 60 + i, db })) }) as unknown as Leg;

/** Eight peaks of noise at -60 dB beyond a gap. */
const NOISY = [-20, -30, null, null, ...Array<number>(8).fill(-60)];

test('what sticks out beyond a gap is noise, not a harmonic', () => {
  const [heard] = overNoise([leg(NOISY)], 16);
  expect(heard).toMatchObject({ midi: 60, up: true });
  expect(heard.harmonics.map((h) => [h.number, h.db])).toEqual([
    [1, -20],
    [2, -30],
  ]);
});

test('one harmonic lost in a notch is no gap', () => {
  const [heard] = overNoise([leg([-20, null, -30, -40])], 16);
  expect(heard.harmonics.map((h) => h.number)).toEqual([1, 3, 4]);
});

test('a level is the less sure the nearer the noise it lies, and surest where none was seen', () => {
  const [, heard] = overNoise([leg(NOISY, [-20, -40, -58])], 16);
  const [far, , near] = heard.harmonics.map((h) => h.sdDb);
  expect(near).toBeGreaterThan(4 * far);
  expect(overNoise([leg([-20, -40, -58])], 16)[0].harmonics.map((h) => h.sdDb)).toEqual([far, far, far].map(() => expect.closeTo(2.1, 1)));
});

test('harmonics above the highest asked for are left out', () => {
  expect(overNoise([leg([-20, -30, -40, -50])], 2)[0].harmonics).toHaveLength(2);
});
