import type { TakeEvent, Trace } from '../take/types';
import { handOver } from './hand-over';
import { Audible } from './sounds';
import type { Asked, Because, Fault, KeyHeard, NoteHeard, Verdict } from './types';

/** All that is known when one key is judged. */
export interface Hearing {
  asked: Asked;
  audible: Audible;
  trace: Trace;
  /** Pitch of each frame of the trace, in the octave asked for; 0 where nothing is sung. */
  midi: readonly number[];
  events: readonly TakeEvent[];
  /** A leap in this key is doubted: a small one, which none of the other keys shows that pass there. */
  leapDoubted: boolean;
  /** Sounding frames of the first halves of the keys, for what comes later at the same pitch. */
  earlier: readonly { midi: number; levelDb: number }[];
  /** The change that the keys are to cross, in the octave asked for, and what was heard of the hand-over there in the whole take; null where none is asked for. */
  crossing: { changeMidi: number; handOver: ReturnType<typeof handOver> } | null;
}

/** One thing that can be wrong with a key: what it does to the verdict, and where it shows. */
export interface Check {
  fault: Fault;
  verdict: Exclude<Verdict, 'yes'>;
  /** Where it doesn't apply nothing is looked at. */
  applies?(hearing: Hearing): boolean;
  look(key: KeyHeard, hearing: Hearing): Omit<Because, 'fault'> | null;
}

/** A slide may begin so much before its time, and end so much after it. */
export const ON_THE_WAY_S = 0.3;

export const framesOf = ({ startS, endS }: { startS: number; endS: number }, { hopS }: Trace): [number, number] => [
  Math.round(startS / hopS),
  Math.round(endS / hopS),
];

/** The note a moment lies in. */
export const noteAt = (key: KeyHeard, timeS: number): NoteHeard => key.notes.find((n) => timeS < n.endS) ?? key.notes[key.notes.length - 1];

/** First and last sounding frame of a key. */
export function sungFrames(key: KeyHeard, trace: Trace): [number, number] | null {
  const [from, to] = framesOf(key, trace);
  let [first, last] = [-1, -1];
  for (let i = from; i < to; i++)
    if (trace.midi[i] > 0) {
      if (first < 0) first = i;
      last = i;
    }
  return first < 0 ? null : [first, last];
}

/** A step that was asked for hides what happens this near to it. */
export const STEP_S = 0.13;

/** What leaps further was misread: published flips leap 2 to 6 semitones, and a step may add a third. */
export const MOST_LEAP_ST = 9;
/** The confidence an event needs to count. */
export const SURE = 0.5;

/** An event that was heard where it can be told from what was asked for: inside a slide, or between notes that are stepped. */
export function eventIn(key: KeyHeard, { events }: Hearing, kinds: readonly TakeEvent['kind'][]): TakeEvent | undefined {
  const slides = key.notes.some((n) => n.slide);
  return events.find((e) => {
    if (
      !kinds.includes(e.kind) ||
      e.confidence < SURE ||
      Math.abs(e.toMidi - e.fromMidi) > MOST_LEAP_ST ||
      e.timeS < key.startS ||
      e.timeS > key.endS - STEP_S
    )
      return false;
    const n = key.notes.findIndex((note) => e.timeS < note.endS);
    if (!slides || n < 0) return !slides;
    const note = key.notes[n];
    return (
      note.slide &&
      (n === 0 || key.notes[n - 1].slide || e.timeS - note.startS > STEP_S) &&
      (key.notes[n + 1].slide || note.endS - e.timeS > STEP_S)
    );
  });
}

/** The note asked for where an event was heard, and how far it leapt. */
export const whereIn = (key: KeyHeard, event: TakeEvent): Omit<Because, 'fault'> => ({
  midi: noteAt(key, event.timeS).midi,
  by: Math.abs(event.toMidi - event.fromMidi),
});

/** Whether a note is stepped to from another pitch. */
export const stepped = (key: KeyHeard, n: number): boolean =>
  n > 0 && (n === key.notes.length || (!key.notes[n - 1].slide && key.notes[n - 1].midi !== key.notes[n].midi));
