import { Direction, EventKind, TakeFindings } from './types';

/** A change found in a take: an event, or the gradual cross-over of a leg. */
export interface Change {
  timeS: number;
  midi: number;
  direction: Direction;
  kind: EventKind | 'blend';
  /** Semitones leapt, or over which the colour spreads; at least 1. */
  widthSt: number;
  /** 0..1 */
  confidence: number;
  /** Index of the leg it lies in, -1 for none. */
  leg: number;
}

/** An event this near a leg's cross-over is the same change. */
const SAME_CHANGE_ST = 3;

/** Every change of a take in time order; a cross-over that an event of its leg already tells of is left out. */
export function changesOf({ events, legs }: TakeFindings): Change[] {
  const within = (timeS: number, leg: number) => timeS >= legs[leg].startS - 0.1 && timeS <= legs[leg].endS + 0.1;
  // A note at the turn of two legs belongs to the one that goes its way.
  const legAt = (timeS: number, direction: Direction) => {
    const own = legs.findIndex((l, at) => l.direction === direction && within(timeS, at));
    return own >= 0 ? own : legs.findIndex((_, at) => within(timeS, at));
  };
  const out: Change[] = events.map(({ timeS, midi, direction, kind, fromMidi, toMidi, confidence }) => ({
    timeS,
    midi,
    direction,
    kind,
    widthSt: Math.max(1, Math.abs(toMidi - fromMidi)),
    confidence,
    leg: legAt(timeS, direction),
  }));
  legs.forEach(({ crossOvers, direction }, leg) => {
    for (const crossOver of crossOvers) {
      const told = events.some((e) => within(e.timeS, leg) && Math.abs(e.midi - crossOver.midi) < SAME_CHANGE_ST + crossOver.widthSt / 2);
      if (!told) out.push({ ...crossOver, direction, kind: 'blend', leg });
    }
  });
  return out.sort((a, b) => a.timeS - b.timeS);
}
