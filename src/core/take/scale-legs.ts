import { JOINED_S } from './note-events';
import { Direction, Leg, SungNote } from './types';

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
    if (note.midi !== previous.midi) {
      const direction = note.midi > previous.midi ? 'up' : 'down';
      if (open?.direction !== direction) {
        close();
        open = { direction, notes: [previous] };
      }
    }
    // A note sung again goes on with what it stands in, and begins nothing.
    open?.notes.push(note);
  });
  close();
  return out;
}
