/** Reference tuning: A4 = 440 Hz, MIDI note 69 (ISO 16). */
export const A4_HZ = 440;
export const A4_MIDI = 69;

const SHARP_NAMES = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'];
const FLAT_NAMES = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];
const LETTER_STEPS: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

/** Fractional MIDI note number to hertz, equal temperament (12-TET, A4 = 440 Hz). */
export function midiToHz(midi: number): number {
  return A4_HZ * 2 ** ((midi - A4_MIDI) / 12);
}

/** Hertz (> 0) to fractional MIDI note number. */
export function hzToMidi(hz: number): number {
  return A4_MIDI + 12 * Math.log2(hz / A4_HZ);
}

/** A note in the octave nearest to another: who sings an exercise an octave off is right all the same. @example nearestOctave(60, 47) // 48 */
export const nearestOctave = (midi: number, middle: number): number => midi + 12 * Math.round((middle - midi) / 12);

/** Interval from `fromHz` to `toHz` in cents (1200 to the octave). */
export function centsBetween(fromHz: number, toHz: number): number {
  return 1200 * Math.log2(toHz / fromHz);
}

/** Scientific pitch name of the nearest semitone: 60 -> "C4". Sharps unless `flats`. */
export function noteName(midi: number, flats = false): string {
  const n = Math.round(midi);
  const names = flats ? FLAT_NAMES : SHARP_NAMES;
  return `${names[((n % 12) + 12) % 12]}${Math.floor(n / 12) - 1}`;
}

/** Nearest note and the deviation from it in whole cents (-50 to 50): "E4 +12". */
export function noteWithCents(midi: number): string {
  const cents = Math.round((midi - Math.round(midi)) * 100);
  return cents === 0 ? noteName(midi) : `${noteName(midi)} ${cents > 0 ? '+' : '−'}${Math.abs(cents)}`;
}

/**
 * "E4", "Bb3", "F#5", "C-1" to a MIDI note number.
 * @throws RangeError with advice when the text is not a note name.
 */
export function parseNote(text: string): number {
  const m = /^\s*([A-Ga-g])([#b♯♭]{0,2})(-?\d{1,2})\s*$/.exec(text);
  if (!m) throw new RangeError(`"${text}" is not a note name: write a letter, an optional # or b, and the octave, such as E4 or Bb3.`);
  let step = LETTER_STEPS[m[1].toUpperCase()];
  for (const sign of m[2]) step += sign === '#' || sign === '♯' ? 1 : -1;
  return step + 12 * (Number(m[3]) + 1);
}

/** True for the white keys of the piano. */
export function isNatural(midi: number): boolean {
  return SHARP_NAMES[((Math.round(midi) % 12) + 12) % 12].length === 1;
}
