import fc from 'fast-check';
import { seededRandom } from '../signal/stats';
import { HOP_S } from '../voice/types';
import { noteShape } from './note-shape';

const CENTRE = 62;
/** A note of so many seconds whose pitch is so many cents off its centre at each time. */
const sung = (seconds: number, cents: (t: number) => number) =>
  Float64Array.from({ length: Math.round(seconds / HOP_S) }, (_, i) => CENTRE + cents(i * HOP_S) / 100);
const shapeOf = (seconds: number, cents: (t: number) => number) => {
  const contour = sung(seconds, cents);
  return noteShape(contour as never, 0, contour.length, CENTRE);
};
const swing =
  (rateHz: number, depth: number, phase = 0) =>
  (t: number) =>
    depth * Math.sin(2 * Math.PI * rateHz * t + phase);

test('a steady note is there at once, drifts nowhere, has no vibrato and no unrest', () => {
  expect(shapeOf(1, () => 0)).toEqual({ onsetS: 0, driftCents: 0, vibrato: null, unrestCents: 0 });
});

// Vibrato of singers: 5 to 7 swings a second, 30 to 100 cents to each side (Sundberg, The Science of the Singing Voice, from memory).
test('a vibrato’s rate and depth are what they were made of, whatever drift lies under it', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 5, max: 7, noNaN: true }),
      fc.double({ min: 20, max: 150, noNaN: true }),
      fc.double({ min: 0, max: 6, noNaN: true }),
      fc.double({ min: -20, max: 20, noNaN: true }),
      (rateHz, depth, phase, drift) => {
        const { vibrato, unrestCents } = shapeOf(1.5, (t) => swing(rateHz, depth, phase)(t) + drift * (t / 1.5 - 0.5));
        expect(Math.abs(vibrato!.rateHz - rateHz)).toBeLessThan(0.25);
        expect(Math.abs(vibrato!.cents / depth - 1)).toBeLessThan(0.15);
        expect(unrestCents).toBeLessThan(0.3 * depth);
      },
    ),
  );
});

test('what swings too slowly, too quickly, too little or too seldom is no vibrato', () => {
  expect(shapeOf(2, swing(2, 60)).vibrato).toBeNull();
  expect(shapeOf(2, swing(12, 60)).vibrato).toBeNull();
  expect(shapeOf(2, swing(6, 6)).vibrato).toBeNull();
  expect(shapeOf(0.4, swing(5.5, 60)).vibrato).toBeNull();
  const random = seededRandom(3);
  const { vibrato, unrestCents } = shapeOf(2, () => 80 * (random() - 0.5));
  expect(vibrato).toBeNull();
  // A uniform spread of 80 cents has this standard deviation.
  expect(Math.abs(unrestCents - 80 / Math.sqrt(12))).toBeLessThan(3);
});

test.each([-40, -10, 25])('a note that drifts by %d cents from end to end does so without unrest', (drift) => {
  const { driftCents, unrestCents, vibrato } = shapeOf(1.2, (t) => drift * (t / 1.2 - 0.5));
  expect(Math.abs(driftCents - drift)).toBeLessThan(1);
  expect(unrestCents).toBeLessThan(0.5);
  expect(vibrato).toBeNull();
});

test('how long a note is scooped into is told, and counts for neither drift nor unrest', () => {
  const scoop = shapeOf(1, (t) => (t < 0.2 ? -300 * (1 - t / 0.2) : 0));
  // Within 30 cents of its centre after nine tenths of the scoop.
  expect(Math.abs(scoop.onsetS - 0.18)).toBeLessThan(0.02);
  expect(Math.abs(scoop.driftCents)).toBeLessThan(5);
  expect(scoop.unrestCents).toBeLessThan(5);
  // A note that never comes near is read from its beginning.
  expect(shapeOf(1, () => 200).onsetS).toBe(0);
});

test('frames without a pitch are left out', () => {
  const cents = swing(6, 50);
  const whole = shapeOf(1.5, cents);
  const torn = shapeOf(1.5, (t) => (t > 0.7 && t < 0.78 ? NaN : cents(t)));
  expect(torn.vibrato!.rateHz).toBeCloseTo(whole.vibrato!.rateHz, 0);
  expect(Math.abs(torn.vibrato!.cents - whole.vibrato!.cents)).toBeLessThan(3);
  expect(shapeOf(0.5, () => NaN)).toMatchObject({ driftCents: 0, vibrato: null, unrestCents: 0 });
});
