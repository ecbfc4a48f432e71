import { Note } from 'tonal';
import { centsBetween, hzToMidi, isNatural, midiToHz, noteName, noteWithCents, parseNote } from './pitch';

test('A4 is 440 Hz (ISO 16) and every MIDI note agrees with the tonal library', () => {
  expect(midiToHz(69)).toBe(440);
  for (let midi = 0; midi <= 127; midi++) {
    const name = Note.fromMidiSharps(midi);
    expect(midiToHz(midi)).toBeCloseTo(Note.freq(name)!, 6);
    expect(hzToMidi(Note.freq(name)!)).toBeCloseTo(midi, 9);
    expect(noteName(midi)).toBe(name);
    expect(noteName(midi, true)).toBe(Note.fromMidi(midi));
    expect(parseNote(name)).toBe(midi);
    expect(isNatural(midi)).toBe(!name.includes('#'));
  }
});

test('note names carry the nearest note and the cents from it', () => {
  expect(noteWithCents(64)).toBe('E4');
  expect(noteWithCents(64.12)).toBe('E4 +12');
  expect(noteWithCents(63.9)).toBe('E4 −10');
  expect(centsBetween(440, 880)).toBe(1200);
});

test.each(['H4', 'E', '', '4', 'E4x'])('"%s" is no note, and the message says what one looks like', (text) => {
  expect(() => parseNote(text)).toThrow(/such as E4 or Bb3/);
});
