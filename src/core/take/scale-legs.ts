import { HOP_S } from '../voice/types';
import { colourOf, fitCrossOvers } from './crossover';
import { Timbre } from './timbre';
import { Direction, Leg, SungNote } from './types';

/**
 * A scale take read as two legs, everything sung on the way up and everything on the way down: each note gives its
 * steady middle's timbre, and the cross-over is fitted over all keys together.
 */
export function scaleLegs(notes: SungNote[], { score, turnMidi }: Timbre): Leg[] {
  if (notes.length < 8) return [];
  const points = (['up', 'down'] as const).map((direction) => pointsOf(notes, score, direction)).filter((p) => p.midi.length >= 20);
  const colours = points.map(({ direction, midi, score: of }) => ({ direction, points: colourOf(midi, of) }));
  const fits = fitCrossOvers(colours, turnMidi);
  const lowestMidi = Math.min(...notes.map((n) => n.midi));
  const highestMidi = Math.max(...notes.map((n) => n.midi));
  return points.map(({ direction }, i) => ({
    startS: notes[0].startS,
    endS: notes[notes.length - 1].endS,
    direction,
    lowestMidi,
    highestMidi,
    colour: colours[i].points,
    crossOvers: fits[i].map((cross) => ({ ...cross, timeS: passing(notes, cross.midi).startS })),
  }));
}

/** Pitch and timbre in the steady middle of the notes reached in one direction. */
function pointsOf(notes: SungNote[], head: Float64Array, direction: Direction) {
  const midi: number[] = [];
  const score: number[] = [];
  notes.forEach((note, i) => {
    const previous = notes[i - 1];
    const joined = previous && note.startS - previous.endS < 0.15;
    const moved = joined ? Math.sign(note.midi - previous.midi) : 1;
    if (moved !== (direction === 'up' ? 1 : -1)) return;
    const from = Math.round((note.startS + 0.25 * (note.endS - note.startS)) / HOP_S);
    const to = Math.round((note.startS + 0.85 * (note.endS - note.startS)) / HOP_S);
    for (let f = from; f < to; f += 2) {
      midi.push(note.midi + note.cents / 100);
      score.push(head[f]);
    }
  });
  return { direction, midi, score };
}

/** The sung note nearest a pitch: where to listen for the change. */
const passing = (notes: SungNote[], midi: number) =>
  notes.reduce((best, n) => (Math.abs(n.midi - midi) < Math.abs(best.midi - midi) ? n : best));
