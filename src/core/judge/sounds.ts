/** What can be heard of a voice on a sound. */
export interface Audible {
  /** Whether its colour tells chest from head: through a straw, lips or the nose it doesn't. */
  colour: boolean;
  /** Of a colour that tells: a closed vowel, whose first formant lies among the notes and hides much of it. */
  closed: boolean;
  /** Whether the sound itself may be interrupted at a note by a consonant (h, k, t) or by lips that close. */
  consonants: boolean;
}

const COLOURLESS = /straw|trill|hum|flutter/;
const NASAL = /^(m|n|ng|v|z)$/;
const CLOSED = /(oo|ee)$/;
/** Sounds that begin with a breath or a stop at each note. */
const BROKEN = /^(h|y?oo-h|hey|g|b|d|k|p|t)|-h|words/;

/**
 * What can be heard on a sound of the shelf, as it is called there.
 *
 * @example audibleOn('lip trill') // { colour: false, closed: false, consonants: false }
 */
export const audibleOn = (sound: string): Audible => ({
  colour: !COLOURLESS.test(sound) && !NASAL.test(sound),
  closed: CLOSED.test(sound),
  consonants: BROKEN.test(sound),
});
