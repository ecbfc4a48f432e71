import { spellDegree } from '../music/scale';
import type { VoiceTypeId } from '../plan/voice-types';
import { stepSemitones } from './pattern';
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

/** The chord of a key sounds so many crotchets before the pattern. */
export const CHORD_BEATS = 2;
const BREATH_BEATS = 2;

/** Anything with a pattern: an exercise, or a step of a lesson. */
export type Patterned = Pick<Exercise, 'steps'> & Partial<Pick<Exercise, 'breathBeats'>>;

/** Lay one key of an exercise out in time at a tempo in crotchets a minute. */
export function renderKey(exercise: Patterned, tonic: number, tempo: number): KeyInTime {
  const beat = 60 / tempo;
  let at = CHORD_BEATS * beat;
  const notes = exercise.steps.map((step) => {
    const note = { startS: at, endS: at + step.beats * beat, midi: tonic + stepSemitones(step), slide: step.slide ?? false };
    at = note.endS;
    return note;
  });
  return {
    tonic,
    chord: [tonic, tonic + 4, tonic + 7],
    chordS: CHORD_BEATS * beat,
    notes,
    totalS: at + (exercise.breathBeats ?? BREATH_BEATS) * beat,
  };
}

/** The pitch that notes mean at a time, MIDI, in a slide as if it went evenly; null where none of them sounds. */
export function meantAt(notes: readonly SoundingNote[], timeS: number): number | null {
  const i = notes.findIndex((n) => timeS >= n.startS && timeS < n.endS);
  if (i < 0) return null;
  const [note, next] = [notes[i], notes[i + 1]];
  return note.slide && next ? note.midi + ((next.midi - note.midi) * (timeS - note.startS)) / (note.endS - note.startS) : note.midi;
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

/** Clefs of voices; `treble-8` sounds an octave under what is written. */
export type Clef = 'treble' | 'treble-8' | 'bass';

/** The clef each voice reads. */
export const CLEF_OF: Record<VoiceTypeId, Clef> = {
  bass: 'bass',
  baritone: 'bass',
  tenor: 'treble-8',
  contralto: 'treble',
  mezzo: 'treble',
  soprano: 'treble',
};

/** Under this a pattern with no known singer is written in the bass clef. */
const BASS_UNDER = 59.5;

/** The pattern in one key as notes to write, in the clef of the voice (by where most of it lies when no voice is named). */
export function notate(exercise: Patterned, tonic: number, voice?: VoiceTypeId): { clef: Clef; notes: WrittenNote[] } {
  const notes = exercise.steps.map((step) => ({
    ...spellDegree(tonic, step.degree, step.alter),
    beats: step.beats,
    slide: step.slide ?? false,
  }));
  const mean = notes.reduce((sum, n) => sum + n.midi, 0) / notes.length;
  return { clef: voice ? CLEF_OF[voice] : mean < BASS_UNDER ? 'bass' : 'treble', notes };
}

/** A point of the pitch that is meant: seconds from the start of the key, MIDI. */
export interface TargetPoint {
  timeS: number;
  midi: number;
}

/**
 * The pitch that is meant through a key, as runs of points to be joined by straight lines: a note is level, a slide goes straight
 * to the next note's pitch (in semitones), a step begins a new run.
 */
export function targetCurve({ notes }: Pick<KeyInTime, 'notes'>): TargetPoint[][] {
  const runs: TargetPoint[][] = [];
  let bound = false;
  notes.forEach((note, i) => {
    const next = notes[i + 1];
    const run = bound ? runs[runs.length - 1] : [];
    if (!bound) runs.push(run);
    run.push({ timeS: note.startS, midi: note.midi });
    bound = note.slide && next !== undefined;
    if (!bound) run.push({ timeS: note.endS, midi: note.midi });
  });
  return runs;
}
