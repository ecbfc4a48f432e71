import { KeyInTime, Patterned, renderKey } from './render';
import { roundOf } from './round';
import { Exercise } from './types';

/** A piano note of a follow-along: seconds from its start, MIDI, loudness 0..1. */
export interface PianoNote {
  startS: number;
  endS: number;
  midi: number;
  loudness: number;
}

/** A whole follow-along laid out in time: what sounds, and where each exercise begins. */
export interface FollowAlong {
  notes: PianoNote[];
  exercises: { name: string; startS: number; endS: number }[];
  totalS: number;
}

export const CHORD_LOUDNESS = 0.45;
export const NOTE_LOUDNESS = 0.8;
/** A chord is let go a little before the pattern begins; notes are nearly bound. */
const CHORD_HELD = 0.9;
const NOTE_HELD = 0.98;
/** Rest between exercises, seconds. */
const REST_S = 4;

/** The piano's notes for keys that follow one another from `startS` on. */
export function pianoNotes(keys: readonly KeyInTime[], startS = 0): PianoNote[] {
  let at = startS;
  return keys.flatMap((key) => {
    const chord = key.chord.map((midi) => ({ startS: at, endS: at + key.chordS * CHORD_HELD, midi, loudness: CHORD_LOUDNESS }));
    const notes = key.notes.map((n) => ({
      startS: at + n.startS,
      endS: at + n.startS + (n.endS - n.startS) * NOTE_HELD,
      midi: n.midi,
      loudness: NOTE_LOUDNESS,
    }));
    at += key.totalS;
    return [...chord, ...notes];
  });
}

/** Exercises one after another, each up and down its keys until its minutes are over (`roundOf`), with a rest between. */
export function followAlong(
  items: readonly { exercise: Pick<Exercise, 'name'> & Patterned; keys: readonly number[]; tempo: number; minutes: number }[],
): FollowAlong {
  const out: FollowAlong = { notes: [], exercises: [], totalS: 0 };
  for (const { exercise, keys, tempo, minutes } of items) {
    const startS = out.totalS === 0 ? 0 : out.totalS + REST_S;
    const round = roundOf(exercise, keys, tempo, minutes).map((key) => renderKey(exercise, key, tempo));
    out.notes.push(...pianoNotes(round, startS));
    const at = startS + round.reduce((sum, key) => sum + key.totalS, 0);
    out.exercises.push({ name: exercise.name, startS, endS: at });
    out.totalS = at;
  }
  return out;
}
