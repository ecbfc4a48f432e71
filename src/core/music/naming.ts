import { noteName } from './pitch';
import { tonicName } from './scale';

/**
 * How notes are called. `letters`: scientific pitch notation, C4 the middle C. `german`: H for B and B for B flat, octaves counted
 * from the small one (c¹ the middle C, after Helmholtz). The others name do, re, mi: `spanish` counts octaves as the letters do,
 * `italian` and `french` an octave lower and without an octave 0 (La3 = 440 Hz), as those schools do (common practice, no source).
 */
export const NAMINGS = ['letters', 'german', 'italian', 'french', 'spanish'] as const;
export type Naming = (typeof NAMINGS)[number];

/** German names that are not the letter with -is or -es. */
const GERMAN: Record<string, string> = { B: 'h', Bb: 'b', Eb: 'es', Ab: 'as' };
const ENDINGS: Record<string, string> = { '': '', '#': 'is', b: 'es' };
const DO_RE_MI: Record<string, string> = { C: 'Do', D: 'Re', E: 'Mi', F: 'Fa', G: 'Sol', A: 'La', B: 'Si' };

/** Marks of the octaves from the small one up, and from the great one down. */
const RAISED = ['', '¹', '²', '³', '⁴', '⁵', '⁶'];
const LOWERED = ['', '₁', '₂', '₃'];
const SMALL_OCTAVE = 3;

/** A letter with its sign, as German names it: "fis", "b", "h". */
const german = (letter: string, sign: string) => GERMAN[letter + sign] ?? letter.toLowerCase() + ENDINGS[sign];
const doReMi = (letter: string, sign: string, naming: Naming) =>
  `${naming === 'french' && letter === 'D' ? 'Ré' : DO_RE_MI[letter]}${sign}`;
const capital = (name: string) => name[0].toUpperCase() + name.slice(1);

/** A major key's name by its tonic, without an octave. @example keyCalled(70, 'german') // "B" */
export function keyCalled(tonicMidi: number, naming: Naming): string {
  const english = tonicName(tonicMidi);
  const [letter, sign = ''] = english;
  return naming === 'letters' ? english : naming === 'german' ? capital(german(letter, sign)) : doReMi(letter, sign, naming);
}

/**
 * The nearest semitone's name, octave and all. Sharps unless `flats`.
 * @param midi any MIDI note number, 0 to 127
 * @example nameOf(70, 'german', true) // "b¹"
 * @example nameOf(69, 'french') // "La3"
 */
export function nameOf(midi: number, naming: Naming, flats = false): string {
  const english = noteName(midi, flats);
  if (naming === 'letters') return english;
  const [, letter, sign, digits] = /^([A-G])([#b]?)(-?\d+)$/.exec(english)!;
  const octave = Number(digits);
  if (naming === 'german') {
    const name = german(letter, sign);
    return octave >= SMALL_OCTAVE ? name + RAISED[octave - SMALL_OCTAVE] : capital(name) + LOWERED[SMALL_OCTAVE - 1 - octave];
  }
  return `${doReMi(letter, sign, naming)}${naming === 'spanish' ? octave : octave >= 2 ? octave - 1 : octave - 2}`;
}
