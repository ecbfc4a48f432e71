import { putRight, shiftTo } from './misread';
import type { NoteHeard } from './types';

const HOP_S = 0.01;
const NOTE_S = 0.3;
const NOTE_FRAMES = NOTE_S / HOP_S;

/** Notes one after another, as they were asked for. */
const asked = (...midi: number[]): NoteHeard[] =>
  midi.map((m, n) => ({
    midi: m,
    slide: false,
    askedS: NOTE_S,
    startS: n * NOTE_S,
    endS: (n + 1) * NOTE_S,
    soundedS: NOTE_S,
    sungMidi: m,
    levelDb: -20,
  }));
const curve = (...midi: number[]): number[] => midi.flatMap((m) => new Array<number>(NOTE_FRAMES).fill(m));
/** What each note is read as: the pitches of its frames, each once. */
const notesOf = (midi: readonly number[]) =>
  Array.from({ length: midi.length / NOTE_FRAMES }, (_, n) => [
    ...new Set(midi.slice(n * NOTE_FRAMES, (n + 1) * NOTE_FRAMES).map(Math.round)),
  ]);

test('harmonics of a tone lie 12 log2 k semitones over it', () => {
  // Equal temperament: an octave, a twelfth, two octaves, two octaves and a third, 12, 19.02, 24, 27.86 semitones.
  expect([48, 40.98, 36, 32.14].map((midi) => Math.round(100 * shiftTo(midi, 60, 0.5)!))).toEqual([1200, 1902, 2400, 2786]);
  // The tritone is no harmonic of anything near, and what is near was sung.
  expect([shiftTo(54, 60, 0.5), shiftTo(51, 60, 0.5), shiftTo(60.5, 60, 0.5)]).toEqual([null, null, null]);
});

test('nothing misread is nothing put right', () => {
  expect(putRight(curve(60, 64, 67), asked(60, 64, 67), HOP_S)).toBeNull();
  expect(putRight(curve(60, 63, 67), asked(60, 64, 67), HOP_S)).toBeNull();
  expect(putRight(curve(0, 0, 0), asked(60, 64, 67), HOP_S)).toBeNull();
});

test('a note read as the tone under it and the fifth that rings on is put where it was asked, keeping how it was sung', () => {
  const read = curve(60, 67, 60.2 - 19.02);
  expect(putRight(read, asked(60, 67, 60), HOP_S)!.slice(2 * NOTE_FRAMES)[0]).toBeCloseTo(60.2, 1);
});

test('a whole note an octave away is lost; a part of one is put right; where most notes are, they were sung there', () => {
  expect(notesOf(putRight(curve(60, 64, 55), asked(60, 64, 67), HOP_S)!)).toEqual([[60], [64], [0]]);
  const part = curve(60, 64, 67).map((m, i) => (i >= 2 * NOTE_FRAMES && i < 2.5 * NOTE_FRAMES ? m - 12 : m));
  expect(notesOf(putRight(part, asked(60, 64, 67), HOP_S)!)).toEqual([[60], [64], [67]]);
  expect(putRight(curve(60, 52, 55), asked(60, 64, 67), HOP_S)).toBeNull();
});

test('a pitch that the key asks for elsewhere stays where it is', () => {
  expect(putRight(curve(60, 60, 60), asked(60, 72, 79), HOP_S)).toBeNull();
});

test('in a slide the pitch asked for moves on', () => {
  const [low, high] = asked(60, 67);
  const sung = Array.from({ length: NOTE_FRAMES }, (_, i) => 60 + (7 * i) / NOTE_FRAMES);
  const read = [...sung.map((m, i) => (i > 10 && i < 20 ? m - 24 : m)), ...curve(67)];
  const right = putRight(read, [{ ...low, slide: true }, high], HOP_S)!;
  sung.forEach((m, i) => expect(right[i]).toBeCloseTo(m, 6));
});
