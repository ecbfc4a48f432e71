import { CHORD_BEATS, KeyInTime, Patterned, renderKey } from './render';
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

/**
 * What the piano does while a key is sung, after its chord: plays the notes along, strikes the key's chord on each beat under them,
 * or leaves the singer alone (common practice, no source).
 */
export const ACCOMPANIMENTS = ['notes', 'beats', 'chord'] as const;
export type Accompaniment = (typeof ACCOMPANIMENTS)[number];

export const CHORD_LOUDNESS = 0.45;
export const NOTE_LOUDNESS = 0.8;
/** Under a voice chords are softer than before it. */
const BEAT_LOUDNESS = 0.28;
/** A chord is let go a little before the pattern begins; notes are nearly bound. */
const CHORD_HELD = 0.9;
const NOTE_HELD = 0.98;
const BEAT_HELD = 0.8;
/** A beat this near the end of the notes isn't struck any more, seconds. */
const NO_BEAT_S = 0.05;
/** Rest between exercises, seconds. */
const REST_S = 4;

/** The piano's notes for keys that follow one another from `startS` on. */
export function pianoNotes(keys: readonly KeyInTime[], startS = 0, accompaniment: Accompaniment = 'notes'): PianoNote[] {
  let at = startS;
  return keys.flatMap((key) => {
    const begins = at;
    at += key.totalS;
    return [...chordOf(key, CHORD_LOUDNESS, 0, key.chordS * CHORD_HELD), ...under(key, accompaniment)].map((n) => ({
      ...n,
      startS: begins + n.startS,
      endS: begins + n.endS,
    }));
  });
}

const chordOf = ({ chord }: KeyInTime, loudness: number, startS: number, endS: number): PianoNote[] =>
  chord.map((midi) => ({ startS, endS, midi, loudness }));

/** What sounds while a key is sung; seconds from the beginning of the key. */
function under(key: KeyInTime, accompaniment: Accompaniment): PianoNote[] {
  if (accompaniment === 'chord') return [];
  if (accompaniment === 'notes')
    return key.notes.map(({ startS, endS, midi }) => ({
      startS,
      endS: startS + (endS - startS) * NOTE_HELD,
      midi,
      loudness: NOTE_LOUDNESS,
    }));
  const beatS = key.chordS / CHORD_BEATS;
  const overS = key.notes[key.notes.length - 1]?.endS ?? key.chordS;
  const beats = Math.ceil((overS - key.chordS - NO_BEAT_S) / beatS);
  return Array.from({ length: Math.max(0, beats) }, (_, b) => key.chordS + b * beatS).flatMap((startS) =>
    chordOf(key, BEAT_LOUDNESS, startS, startS + beatS * BEAT_HELD),
  );
}

/** Exercises one after another, each up and down its keys until its minutes are over (`roundOf`), with a rest between. */
export function followAlong(
  items: readonly { exercise: Pick<Exercise, 'name'> & Patterned; keys: readonly number[]; tempo: number; minutes: number }[],
  accompaniment?: Accompaniment,
): FollowAlong {
  const out: FollowAlong = { notes: [], exercises: [], totalS: 0 };
  for (const { exercise, keys, tempo, minutes } of items) {
    const startS = out.totalS === 0 ? 0 : out.totalS + REST_S;
    const round = roundOf(exercise, keys, tempo, minutes).map((key) => renderKey(exercise, key, tempo));
    out.notes.push(...pianoNotes(round, startS, accompaniment));
    const at = startS + round.reduce((sum, key) => sum + key.totalS, 0);
    out.exercises.push({ name: exercise.name, startS, endS: at });
    out.totalS = at;
  }
  return out;
}
