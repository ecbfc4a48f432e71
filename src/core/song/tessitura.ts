import { secondsAt, Song } from './types';

/** Where a melody lies: its range, and how long it stays on each note. */
export interface Tessitura {
  lowest: number;
  highest: number;
  /** Seconds on each note that is sung, lowest first. */
  histogram: { midi: number; seconds: number }[];
  /** Mean pitch, each note by its length, MIDI with fractions. */
  mean: number;
  /** The notes between which the middle eight tenths of the singing time lie. */
  low: number;
  high: number;
  /** Seconds sung, without rests. */
  seconds: number;
}

/** A tenth of the time lies under the tessitura and a tenth above (common practice, no source: "where most of it lies"). */
const OUTSIDE = 0.1;

/** Seconds each note lasts at the song's tempo. */
export const noteSeconds = (song: Song): number[] => song.notes.map((n) => secondsAt(song, n.start + n.beats) - secondsAt(song, n.start));

/** Where a melody lies when it is sung `semitones` higher than written. */
export function tessituraOf(song: Song, semitones = 0): Tessitura {
  const long = noteSeconds(song);
  const by = new Map<number, number>();
  song.notes.forEach((n, i) => by.set(n.midi + semitones, (by.get(n.midi + semitones) ?? 0) + long[i]));
  const histogram = [...by].map(([midi, seconds]) => ({ midi, seconds })).sort((a, b) => a.midi - b.midi);
  const seconds = histogram.reduce((sum, h) => sum + h.seconds, 0);
  const noteAt = (share: number) => {
    let sum = 0;
    for (const h of histogram) {
      sum += h.seconds;
      if (sum >= share * seconds - 1e-9) return h.midi;
    }
    return histogram[histogram.length - 1].midi;
  };
  return {
    lowest: histogram[0].midi,
    highest: histogram[histogram.length - 1].midi,
    histogram,
    mean: histogram.reduce((sum, h) => sum + h.midi * h.seconds, 0) / seconds,
    low: noteAt(OUTSIDE),
    high: noteAt(1 - OUTSIDE),
    seconds,
  };
}
