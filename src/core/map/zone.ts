import { Direction, Range, TakeFindings } from '../take/types';
import { Passaggio } from './types';

/** Whether a take's legs were slid. */
export const isSlide = ({ slid, task }: TakeFindings): boolean => slid ?? task === 'siren';

/** Whoever passes by a change goes this far beyond it on both sides. */
const PAST_ST = 1.5;

/** Whether a leg goes by a place, MIDI. */
export const passesBy = ({ lowestMidi, highestMidi }: Range, midi: number): boolean =>
  lowestMidi < midi - PAST_ST && highestMidi > midi + PAST_ST;

/** Where a passaggio lies going one way; where that isn't known, its centre. */
export const placeOf = ({ midi, upMidi, downMidi }: Pick<Passaggio, 'midi' | 'upMidi' | 'downMidi'>, direction: Direction): number =>
  (direction === 'up' ? upMidi : downMidi) ?? midi;

/**
 * The notes of a passaggio, first and last, whole MIDI: from the lower to the upper of the places where the voice changes going
 * up and coming down (below all is chest, above all is head), and for a blend over the width of its cross-over. How far the
 * places themselves are known is another matter: `lowMidi` and `highMidi`.
 *
 * @example zoneOf({ upMidi: 65, downMidi: 62.8, name: 'flip', ... }) // { first: 63, last: 65 }
 */
export function zoneOf({ midi, upMidi, downMidi, widthSt, name }: Passaggio): { first: number; last: number } {
  const places = [upMidi ?? downMidi ?? midi, downMidi ?? upMidi ?? midi];
  const half = name === 'blended' ? widthSt / 2 : 0;
  return { first: Math.round(Math.min(...places) - half), last: Math.round(Math.max(...places) + half) };
}
