import { meantAt } from '../exercise/render';
import type { NoteHeard } from './types';

/**
 * What a pitch misread by a whole ratio lies away from the one sung: where a note meets what still rings of the note before, the tone both
 * could be harmonics of is taken for the pitch (common subharmonics), up to the eighth; a strong harmonic is taken for it more seldom.
 */
const RATIOS = [2, 3, 4, 5, 6, 7, 8, 1 / 2, 1 / 3];
const SHIFTS_ST = RATIOS.map((r) => 12 * Math.log2(r));
export const OCTAVE_ST = 12;
/** Nearer to what was asked than this it may have been sung. */
const LEAST_OFF_ST = 7;
/** So near must what was sung lie to what was asked, once put right; in a slide it may be late. */
export const NEAR_ST = 0.6;
const NEAR_IN_SLIDE_ST = 1.5;
/** A note that is an octave away for more than this share of it may have been sung there. */
const MOST_AN_OCTAVE_AWAY = 0.75;
/** More of a key's notes than this an octave away: it was sung there. */
const MANY = 0.5;

/** What a misread pitch must be shifted by to lie as near as this to what was asked, semitones; null where no whole ratio does it. */
export function shiftTo(midi: number, meant: number, near: number): number | null {
  if (Math.abs(midi - meant) < LEAST_OFF_ST) return null;
  return SHIFTS_ST.find((s) => Math.abs(midi + s - meant) <= near) ?? null;
}

/**
 * The pitch of each frame of a key with what was misread put right: frames that lie a whole ratio away from what was asked of their note.
 * What is a pitch of the key's own may have been sung in the wrong place. A whole note an octave away may have been sung there, or not: its
 * pitch is lost (0), unless much of the key is as far. Null where nothing was misread.
 *
 * @param midi pitch of each frame of the take, 0 where nothing is sung
 */
export function putRight(midi: readonly number[], notes: readonly NoteHeard[], hopS: number): number[] | null {
  const out = [...midi];
  const whole: [number, number][] = [];
  let misread = false;
  for (const note of notes) {
    const [from, to] = [Math.round(note.startS / hopS), Math.round(note.endS / hopS)];
    let [sung, away] = [0, 0];
    for (let i = from; i < to; i++) {
      if (!(midi[i] > 0)) continue;
      sung++;
      const shift = shiftTo(midi[i], meantAt(notes, i * hopS) ?? note.midi, note.slide ? NEAR_IN_SLIDE_ST : NEAR_ST);
      if (shift === null || notes.some((other) => Math.abs(midi[i] - other.midi) < NEAR_ST)) continue;
      if (Math.abs(shift) === OCTAVE_ST) away++;
      misread = true;
      out[i] = midi[i] + shift;
    }
    if (away > MOST_AN_OCTAVE_AWAY * sung) whole.push([from, to]);
  }
  if (!misread || whole.length > MANY * notes.length) return null;
  for (const [from, to] of whole) out.fill(0, from, to);
  return out;
}
