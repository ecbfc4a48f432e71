import { texts } from '../words/said';
import { likelyTonic, stepAt } from './pattern';
import type { Exercise, Step } from './types';

/** A note of a tune: where it begins and how long it is, crotchets. */
export interface TuneNote {
  midi: number;
  start: number;
  beats: number;
  slide?: boolean;
}

/** A rest up to this long after a note is sung over: what is drilled is the line; crotchets. */
const SUNG_OVER = 1;
const BEATS = { least: 1 / 6, most: 16 };
/** What an exercise may be played at, and how far its slowest and fastest lie from the usual; crotchets a minute. */
const TEMPI = { least: 30, most: 240, aside: 16 };

/** A line of melody as a pattern on its likely tonic (MIDI). */
export function lineOf(notes: readonly TuneNote[]): { tonic: number; steps: Step[] } {
  const tonic = likelyTonic(notes.map((n) => n.midi));
  const steps = notes.map((n, i) => {
    const next = notes[i + 1];
    const beats = next ? Math.min(next.start - n.start, n.beats + SUNG_OVER) : n.beats;
    const long = Math.min(BEATS.most, Math.max(BEATS.least, Math.round(beats * 12) / 12));
    return stepAt(n.midi - tonic, long, Boolean(n.slide && next));
  });
  return { tonic, steps };
}

/** A blank exercise to write in. */
export const emptyExercise = (id: string): Exercise => ({
  id,
  name: '',
  family: 'scale',
  strand: 'crossing',
  role: 'work',
  steps: [1, 2, 3, 2, 1].map((degree) => ({ degree, beats: 1 })),
  tempo: [72, 90, 110],
  breathBeats: 2,
  sounds: ['oo', 'oh', 'ah'],
  aim: 'across',
  loudness: 'even',
  place: 'across',
  grade: 3,
  weight: 0,
  keys: { from: { edge: 'top', anchor: 'change', semitones: 0 }, to: { edge: 'top', anchor: 'change', semitones: 4 } },
  suits: [],
  avoid: [],
  schools: [],
  after: [],
  needs: [],
  minutes: 1,
  timesADay: 2,
  measure: 'crosses',
  how: '',
  purpose: '',
  caution: texts('Only as loud as it stays connected. Stop if it scratches.'),
});

/** A tune as an exercise, on its likely tonic. `tempo`: crotchets a minute. */
export function exerciseOfTune(notes: readonly TuneNote[], tempo: number, { id, name }: { id: string; name: string }): Exercise {
  const within = (t: number) => Math.round(Math.min(TEMPI.most, Math.max(TEMPI.least, t)));
  return {
    ...emptyExercise(id),
    name,
    steps: lineOf(notes).steps,
    tempo: [within(tempo - TEMPI.aside), within(tempo), within(tempo + TEMPI.aside)],
  };
}
