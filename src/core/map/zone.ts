import { Passaggio } from './types';

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
