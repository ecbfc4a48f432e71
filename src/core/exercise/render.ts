import { degreeToSemitones, spellDegree } from '../music/scale';
import { Exercise } from './types';

/** A note to sound: seconds from the start of the key, fractional MIDI allowed. */
export interface SoundingNote {
  startS: number;
  endS: number;
  midi: number;
  /** Glides to the next note's pitch. */
  slide: boolean;
}

/** One key of an exercise laid out in time: its chord first, then the pattern, then a breath. */
export interface KeyInTime {
  tonic: number;
  chord: number[];
  chordS: number;
  notes: SoundingNote[];
  /** Until the next key's chord. */
  totalS: number;
}

const CHORD_BEATS = 2;
const BREATH_BEATS = 2;

/** Anything with a pattern: an exercise, or a step of a lesson. */
type Patterned = Pick<Exercise, 'steps'>;

/** Lay one key of an exercise out in time at a tempo in crotchets a minute. */
export function renderKey(exercise: Patterned, tonic: number, tempo: number): KeyInTime {
  const beat = 60 / tempo;
  let at = CHORD_BEATS * beat;
  const notes = exercise.steps.map((step) => {
    const note = { startS: at, endS: at + step.beats * beat, midi: tonic + degreeToSemitones(step.degree), slide: step.slide ?? false };
    at = note.endS;
    return note;
  });
  return { tonic, chord: [tonic, tonic + 4, tonic + 7], chordS: CHORD_BEATS * beat, notes, totalS: at + BREATH_BEATS * beat };
}

/** A written note: spelled pitch, duration in crotchets, whether a slide leads to the next. */
export interface WrittenNote {
  letter: string;
  accidental: number;
  octave: number;
  midi: number;
  beats: number;
  slide: boolean;
}

/** The pattern in one key as notes to write. The clef is bass where most of it lies below C4. */
export function notate(exercise: Patterned, tonic: number): { clef: 'treble' | 'bass'; notes: WrittenNote[] } {
  const notes = exercise.steps.map((step) => ({ ...spellDegree(tonic, step.degree), beats: step.beats, slide: step.slide ?? false }));
  const mean = notes.reduce((sum, n) => sum + n.midi, 0) / notes.length;
  return { clef: mean < 59.5 ? 'bass' : 'treble', notes };
}
