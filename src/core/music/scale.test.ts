import { Note, Scale } from 'tonal';
import { degreeToSemitones, keyLadder, spellDegree, tonicName } from './scale';

test('every major scale is spelled as the tonal library spells it', () => {
  for (let tonic = 48; tonic < 60; tonic++) {
    const name = `${tonicName(tonic)}${Math.floor(tonic / 12) - 1}`;
    Scale.get(`${name} major`).notes.forEach((expected, i) => {
      const { letter, accidental, octave, midi } = spellDegree(tonic, i + 1);
      expect(`${letter}${accidental < 0 ? 'b'.repeat(-accidental) : '#'.repeat(accidental)}${octave}`).toBe(expected);
      expect(midi).toBe(Note.midi(expected));
    });
  }
});

test('degrees run on past the octave and under the tonic, and only whole ones exist', () => {
  expect([1, 3, 5, 8, 9].map(degreeToSemitones)).toEqual([0, 4, 7, 12, 14]);
  expect([0, -1, -2, -6].map(degreeToSemitones)).toEqual([-1, -3, -5, -12]);
  expect(() => degreeToSemitones(1.5)).toThrow(RangeError);
});

test('key ladders walk either way and include both ends', () => {
  expect(keyLadder(57, 60)).toEqual([57, 58, 59, 60]);
  expect(keyLadder(60, 57)).toEqual([60, 59, 58, 57]);
  expect(keyLadder(60, 60)).toEqual([60]);
  expect(keyLadder(60, 65, 2)).toEqual([60, 62, 64]);
});
