import { howSoft, lowestCeiling } from './how-soft';
import type { Ceiling } from './types';
import { inEnglish } from '../format/say';

const ceiling = (...notes: [number, number][]): Ceiling => ({
  notes: notes.map(([midi, db]) => ({ midi, db, sdDb: 1 })),
  passes: [],
  takeIds: [],
});

test('the lowest ceiling among the notes that are sung says how soft; where none is known, or all is high, nothing is said', () => {
  const known = ceiling([62, 6], [64, 1], [65, -4], [67, 8]);
  expect(lowestCeiling(known, 60, 72)).toMatchObject({ midi: 65, db: -4 });
  expect(inEnglish(howSoft(known, 60, 72)!)).toBe('Soft near F4: louder than that it breaks there.');
  expect(inEnglish(howSoft(known, 60, 64)!)).toBe('No more than medium loud near E4: louder than that it breaks there.');
  expect([howSoft(known, 60, 62), howSoft(known, 66, 72), howSoft(known, 50, 60), howSoft(undefined, 0, 127)]).toEqual([
    null,
    null,
    null,
    null,
  ]);
});
