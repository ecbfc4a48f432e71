import { SHELF, exerciseById } from './shelf';
import { leansIn } from './vowel-lean';

const FIVE = exerciseById('five-note-ah');

// "Ah" a little toward "oh", from about two notes below the change; closed vowels hardly at all: common practice, no source.
test('in each key the leaning begins at the first note within two semitones of the change, and ends where the line leaves it', () => {
  // C D E F G F E D C against a change on G: F is the first.
  expect(leansIn(FIVE, 'ah', 60, 67)).toEqual([
    { step: 3, leans: true, vowel: 'oh' },
    { step: 6, leans: false, vowel: 'ah' },
  ]);
  expect(leansIn(FIVE, 'ah', 55, 67)).toEqual([]);
  // All of it lies above: it leans from the first note, and stays.
  expect(leansIn(FIVE, 'ah', 66, 67)).toEqual([{ step: 0, leans: true, vowel: 'oh' }]);
});

test('closed and straw sounds don’t lean; “eh” leans toward closed', () => {
  for (const sound of ['oo', 'oh', 'straw', 'hum', 'wee', 'ng', 'nay', 'lip trill', 'oh to oo'])
    expect([sound, leansIn(FIVE, sound, 60, 67)]).toEqual([sound, []]);
  expect(leansIn(FIVE, 'neh', 60, 67)[0].vowel).toBe('ay');
  expect(leansIn(FIVE, 'crying ah', 60, 67)[0].vowel).toBe('oh');
});

test('nothing that adds weight is rounded, whatever it is sung on', () => {
  for (const e of SHELF.filter((x) => x.weight > 0)) for (const sound of e.sounds) expect(leansIn(e, sound, 60, 61)).toEqual([]);
});
