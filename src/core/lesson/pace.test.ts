import { HOP_S } from '../voice/types';
import { paceOf } from './pace';

const LOW = 45;
const CHANGE = 62;
/** The last moments of a slide at a speed, semitones a second, that ends on a note. */
const slide = (to: number, speed: number, seconds = 1.5) => {
  const n = Math.round(seconds / HOP_S);
  return Array.from({ length: n }, (_, i) => to - speed * HOP_S * (n - 1 - i));
};

// "A long siren takes about 5 to 8 s up and down; slower runs out of air at the bottom, faster hides the change" (common practice).
test.each<[string, number[], ReturnType<typeof paceOf>]>([
  ['stands at the bottom', slide(LOW + 1, 0.5), 'lingers'],
  ['stands at the bottom on the way down', slide(LOW + 1, -0.5), 'lingers'],
  ['leaves the bottom at a siren’s pace', slide(LOW + 3, 7), null],
  ['stands higher up', slide(LOW + 12, 0.5), null],
  ['runs through the change', slide(CHANGE + 5, 16), 'rushes'],
  ['runs through it downward', slide(CHANGE - 5, -16), 'rushes'],
  ['passes it at a siren’s pace', slide(CHANGE + 2.5, 7), null],
  ['runs elsewhere', slide(CHANGE + 14, 16), null],
  ['has only begun', slide(LOW, 0, 0.4), null],
])('a siren that %s', (_, midi, pace) => expect(paceOf(midi, LOW, CHANGE)).toBe(pace));

test('a breath or a consonant in the last moments says nothing', () => {
  const midi = slide(LOW + 1, 0.5);
  midi[midi.length - 20] = 0;
  expect(paceOf(midi, LOW, CHANGE)).toBeNull();
});
