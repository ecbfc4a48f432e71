import type { Passaggio } from './types';

/** Notes that a voice sings joined in both registers: chest carried up to the one, head brought down to the other. */
export interface Overlap {
  /** Where head ends coming down, and chest going up; MIDI with fractions. */
  low: number;
  high: number;
  widthSt: number;
}

/** Passes each way that a width is read from at least. */
const LEAST_PASSES = 2;

/**
 * How far the registers overlap at a change: from the last head note coming down up to the last chest note going up, the middles of all passes
 * (published flips show the same hysteresis). Null where one way was heard too seldom; a width of 0 where the two meet, or leave a gap.
 *
 * @example overlapOf({ upMidi: 67, downMidi: 63.5, up: { found: 3, of: 3 }, down: { found: 3, of: 4 } }) // { low: 63.5, high: 67, widthSt: 3.5 }
 */
export function overlapOf({ upMidi, downMidi, up, down }: Pick<Passaggio, 'upMidi' | 'downMidi' | 'up' | 'down'>): Overlap | null {
  if (upMidi === null || downMidi === null || up.found < LEAST_PASSES || down.found < LEAST_PASSES) return null;
  return { low: downMidi, high: Math.max(upMidi, downMidi), widthSt: Math.max(0, upMidi - downMidi) };
}
