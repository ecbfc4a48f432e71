const mod = (a: number, n: number) => ((a % n) + n) % n;

const ON_FIFTHS = 'FCGDAEB';
const NATURAL: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
/** Of the twelve notes, those from four fifths under the tonic to seven over it: in C from Ab to C#. */
const LOWEST_FIFTH = -4;

/**
 * A note spelled as a key signature of `fifths` sharps (negative: flats) would have it: its letter, accidental and octave.
 * @example spellIn(61, 0) // C#4: { letter: 'C', accidental: 1, octave: 4 }
 * @example spellIn(61, -3) // Db4: { letter: 'D', accidental: -1, octave: 4 }
 */
export function spellIn(midi: number, fifths: number): { letter: string; accidental: number; octave: number } {
  const lowest = fifths + LOWEST_FIFTH;
  // A fifth is seven semitones; seven sevens are one more than a whole number of octaves.
  const place = lowest + mod(7 * midi - lowest, 12);
  const letter = ON_FIFTHS[mod(place + 1, 7)];
  const accidental = Math.floor((place + 1) / 7);
  return { letter, accidental, octave: Math.round((midi - accidental - NATURAL[letter]) / 12) - 1 };
}
