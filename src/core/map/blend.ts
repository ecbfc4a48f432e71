import { BlendPoint, Passaggio } from './types';

/** A logistic goes from 10 to 90 % over 4.394 of its units. */
const TEN_TO_NINETY = 2 * Math.log(9);

/** How much head (0..1) a change of that place and 10-90 % width gives a pitch. */
export const headAt = (midi: number, placeMidi: number, widthSt: number): number =>
  1 / (1 + Math.exp((-TEN_TO_NINETY * (midi - placeMidi)) / widthSt));

/**
 * How much head at each note from `low` to `high` (MIDI), 0 all chest to 1 all head, with its spread: each pass that told of
 * a change draws a logistic of that change's place and width; a voice with several changes hands over an equal part at each.
 * The spread is one standard deviation between passes, so it is wide where days and directions differ. Empty when no change
 * is known.
 */
export function blendCurve(passaggi: Passaggio[], low: number, high: number): BlendPoint[] {
  if (passaggi.length === 0) return [];
  const out: BlendPoint[] = [];
  for (let midi = Math.ceil(low); midi <= Math.floor(high); midi++) {
    let head = 0;
    let variance = 0;
    for (const { votes } of passaggi) {
      let weight = 0;
      let sum = 0;
      let squares = 0;
      for (const v of votes) {
        const h = headAt(midi, v.midi, v.widthSt);
        weight += v.weight;
        sum += v.weight * h;
        squares += v.weight * h * h;
      }
      const mean = sum / weight;
      head += mean / passaggi.length;
      variance += Math.max(0, squares / weight - mean * mean) / passaggi.length ** 2;
    }
    out.push({ midi, head, spread: Math.sqrt(variance), passes: Math.max(...passaggi.map((p) => p.votes.length)) });
  }
  return out;
}
