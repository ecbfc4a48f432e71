/** Semitones above the tonic of major-scale degrees 1..7. */
const MAJOR = [0, 2, 4, 5, 7, 9, 11];

const mod = (a: number, n: number) => ((a % n) + n) % n;

/** Semitones above the tonic of a whole major-scale degree: 1 -> 0, 5 -> 7, 8 -> 12, 9 -> 14; under the tonic 0 -> -1, -2 -> -5. */
export function degreeToSemitones(degree: number): number {
  if (!Number.isInteger(degree)) throw new RangeError(`Scale degree ${degree} must be a whole number.`);
  return MAJOR[mod(degree - 1, 7)] + 12 * Math.floor((degree - 1) / 7);
}

/**
 * Keys (tonics, MIDI) from `first` to `last` inclusive in steps of `step` semitones (default 1),
 * ascending or descending as the two lie.
 */
export function keyLadder(first: number, last: number, step = 1): number[] {
  const sign = last >= first ? 1 : -1;
  const count = Math.floor(Math.abs(last - first) / step) + 1;
  return Array.from({ length: count }, (_, i) => first + sign * i * step);
}

/** Spell a major key's tonic the usual way (Db, Eb, Ab, Bb flat; F# sharp). */
export function tonicName(midi: number): string {
  return ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'][mod(midi, 12)];
}

/** Whether a major key names its notes with flats. @example flatsIn(70) // true: B flat */
export const flatsIn = (tonicMidi: number): boolean => tonicName(tonicMidi).includes('b');

/** A key by its tonic, to be put into words: spelt as its staff is. */
export const asKey = (tonicMidi: number) => ({ note: tonicMidi, flats: flatsIn(tonicMidi) });

const LETTERS = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];
const NATURAL_STEPS = [0, 2, 4, 5, 7, 9, 11];

/**
 * Spell the note `degree` (raised by `alter` semitones) of the major key on `tonicMidi`: letter, accidental (in semitones) and
 * octave. Every degree takes its own letter, so Eb major has Ab and not G#.
 */
export function spellDegree(
  tonicMidi: number,
  degree: number,
  alter = 0,
): { letter: string; accidental: number; octave: number; midi: number } {
  const tonic = tonicName(tonicMidi);
  const tonicLetter = LETTERS.indexOf(tonic[0]);
  const tonicOctave = Math.floor(tonicMidi / 12) - 1;
  const index = tonicLetter + degree - 1;
  const octave = tonicOctave + Math.floor(index / 7);
  const letterIndex = mod(index, 7);
  const midi = tonicMidi + degreeToSemitones(degree) + alter;
  return { letter: LETTERS[letterIndex], accidental: midi - (NATURAL_STEPS[letterIndex] + 12 * (octave + 1)), octave, midi };
}
