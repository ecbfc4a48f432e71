import { Note } from 'tonal';
import { LETTER_OCTAVES, letterKey } from './letter-keys';

const nameOf = (letter: string) => {
  const semitones = letterKey(`Key${letter}`);
  return semitones === null ? null : Note.fromMidiSharps(60 + semitones);
};

test('the middle row is white keys, the row over it black ones, as they lie on a piano', () => {
  expect([...'ASDFGHJKL'].map(nameOf)).toEqual(['C4', 'D4', 'E4', 'F4', 'G4', 'A4', 'B4', 'C5', 'D5']);
  // Between E and F, and B and C, there is none.
  expect([...'WERTYUIO'].map(nameOf)).toEqual(['C#4', 'D#4', null, 'F#4', 'G#4', 'A#4', null, 'C#5']);
});

test('each plays a note of its own, none lies beneath Space, the arrows or what moves an octave', () => {
  const codes = [...'QWERTYUIOPASDFGHJKLZXCVBNM'].map((l) => letterKey(`Key${l}`)).filter((n) => n !== null);
  expect(new Set(codes).size).toBe(codes.length);
  for (const code of ['Space', 'ArrowUp', 'Escape', 'KeyP', ...Object.keys(LETTER_OCTAVES)]) expect(letterKey(code)).toBeNull();
});
