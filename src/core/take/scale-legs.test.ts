import { scaleLegs } from './scale-legs';
import type { SungNote } from './types';

/** Notes of half a second one after another, "|" for a breath of a second. */
function sung(...pitches: (number | '|')[]): SungNote[] {
  let at = 0;
  const notes: SungNote[] = [];
  for (const midi of pitches) {
    if (midi === '|') at += 1;
    else notes.push({ startS: at, endS: (at += 0.5), midi, cents: 0 } as SungNote);
  }
  return notes;
}
const legs = (...pitches: (number | '|')[]) => scaleLegs(sung(...pitches)).map((l) => [l.direction, l.lowestMidi, l.highestMidi]);

test('a scale up and down is a rise and a fall that share its top', () => {
  expect(legs(60, 62, 64, 65, 67, 65, 64, 62, 60)).toEqual([
    ['up', 60, 67],
    ['down', 60, 67],
  ]);
  const [up, down] = scaleLegs(sung(60, 62, 64, 62, 60));
  expect([up.startS, up.endS, down.startS, down.endS]).toEqual([0, 1.5, 1, 2.5]);
});

test('a breath ends a rise: what comes after it is a pass of its own', () => {
  expect(legs(60, 62, 64, '|', 65, 67)).toEqual([
    ['up', 60, 64],
    ['up', 65, 67],
  ]);
});

test('one note alone is no pass, nor is nothing', () => {
  expect(legs(60)).toEqual([]);
  expect(legs(60, '|', 64)).toEqual([]);
  expect(legs()).toEqual([]);
});

test('a note sung again is no pass of its own: it goes on with the rise or fall it stands in', () => {
  expect(legs(60, 60, 60)).toEqual([]);
  expect(legs(60, 60, 62, 64, 64)).toEqual([['up', 60, 64]]);
  expect(legs(67, 65, 65, 64, 64, 65)).toEqual([
    ['down', 64, 67],
    ['up', 64, 65],
  ]);
});

test('pitches are as they were sung, cents and all', () => {
  const notes = sung(60, 64).map((n) => ({ ...n, cents: 20 }));
  expect(scaleLegs(notes)[0]).toMatchObject({ lowestMidi: 60.2, highestMidi: 64.2, crossOvers: [] });
});
