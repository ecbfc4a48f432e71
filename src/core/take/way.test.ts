import fc from 'fast-check';
import { goesItsWay } from './way';

const LONG = 200;
const AT = 100;
/** A slide of so many semitones a frame, with something added frame by frame. */
const slide = (perFrame: number, added: (frame: number) => number) => Array.from({ length: LONG }, (_, i) => 60 + perFrame * i + added(i));

test('a voice that leaps and stays where it leapt does not go on its way; one that comes back does', () => {
  fc.assert(
    fc.property(
      fc.double({ min: -0.06, max: 0.06, noNaN: true }),
      fc.constantFrom(-1, 1),
      fc.double({ min: 1.3, max: 6, noNaN: true }),
      (perFrame, sign, size) => {
        const leap = sign * size;
        expect(
          goesItsWay(
            slide(perFrame, (i) => (i < AT ? 0 : leap)),
            AT,
            leap,
          ),
        ).toBe(false);
        // A tracker that slips for a tenth of a second.
        expect(
          goesItsWay(
            slide(perFrame, (i) => (i >= AT && i < AT + 10 ? leap : 0)),
            AT,
            leap,
          ),
        ).toBe(true);
        expect(
          goesItsWay(
            slide(perFrame, () => 0),
            AT,
            leap,
          ),
        ).toBe(true);
      },
    ),
  );
});

test('what a leap shakes around it doesn’t count', () => {
  const shaken = (leap: number) => slide(0.03, (i) => (i < AT ? 0 : leap) + (Math.abs(i - AT) < 10 ? 2 * Math.sin(i) : 0));
  expect(goesItsWay(shaken(3), AT, 3)).toBe(false);
  expect(goesItsWay(shaken(0), AT, 3)).toBe(true);
});

test('where too little is sung on either side nothing is said for it', () => {
  const still = slide(0.03, () => 0);
  expect(
    goesItsWay(
      still.map((m, i) => (i > AT - 20 ? m : 0)),
      AT,
      3,
    ),
  ).toBe(false);
  expect(
    goesItsWay(
      still.map((m, i) => (i < AT + 20 ? m : 0)),
      AT,
      3,
    ),
  ).toBe(false);
  // Only what lies in the slide is looked at.
  expect(goesItsWay(still, AT, 3, AT - 15)).toBe(false);
  expect(goesItsWay(still, AT, 3, 0, AT + 15)).toBe(false);
});
