import { HOP_S } from '../voice/types';
import { colourOf } from './crossover';
import { JOINED_S } from './note-events';
import { Timbre } from './timbre';
import { Direction, Leg, LegColour, SungNote } from './types';

const pitchOf = ({ midi, cents }: SungNote) => midi + cents / 100;

/** The rises and falls of each breath: each is a pass of its own over the notes it spans. */
export function scaleLegs(notes: SungNote[]): Leg[] {
  const out: Leg[] = [];
  let open: { direction: Direction; notes: SungNote[] } | null = null;
  const close = () => {
    if (!open) return;
    const pitches = open.notes.map(pitchOf);
    out.push({
      startS: open.notes[0].startS,
      endS: open.notes[open.notes.length - 1].endS,
      direction: open.direction,
      lowestMidi: Math.min(...pitches),
      highestMidi: Math.max(...pitches),
      crossOvers: [],
    });
    open = null;
  };
  notes.forEach((note, i) => {
    const previous = notes[i - 1];
    if (!previous || note.startS - previous.endS > JOINED_S) return close();
    const direction = note.midi > previous.midi ? 'up' : 'down';
    if (open?.direction !== direction) {
      close();
      open = { direction, notes: [previous] };
    }
    open.notes.push(note);
  });
  close();
  return out;
}

/** Colour over all keys of a scale, by direction: each note gives its steady middle's. */
export function scaleColours(notes: SungNote[], { score, turnMidi }: Timbre, beforeTurnSt: number): LegColour[] {
  return (['up', 'down'] as const).map((direction) => {
    const { midi, head } = pointsOf(notes, score, direction);
    return { direction, points: colourOf(midi, head).filter((p) => p.midi < turnMidi - beforeTurnSt) };
  });
}

/** Pitch and timbre in the steady middle of the notes reached in one direction. */
function pointsOf(notes: SungNote[], score: Float64Array, direction: Direction) {
  const midi: number[] = [];
  const head: number[] = [];
  notes.forEach((note, i) => {
    const previous = notes[i - 1];
    const moved = previous && note.startS - previous.endS < JOINED_S ? Math.sign(note.midi - previous.midi) : 1;
    if (moved !== (direction === 'up' ? 1 : -1)) return;
    const from = Math.round((note.startS + 0.25 * (note.endS - note.startS)) / HOP_S);
    const to = Math.round((note.startS + 0.85 * (note.endS - note.startS)) / HOP_S);
    for (let f = from; f < to; f += 2) {
      midi.push(pitchOf(note));
      head.push(score[f]);
    }
  });
  return { midi, head };
}
