/** Loudness marks, softest first. */
export const MARKS = ['pp', 'p', 'mp', 'mf', 'f', 'ff'] as const;
export type LoudnessMark = (typeof MARKS)[number];

/** One note of a melody. Lengths and places in crotchets from the beginning of the song. */
export interface SongNote {
  /** Sounding pitch, MIDI, whole. */
  midi: number;
  start: number;
  beats: number;
  /** The syllable under it, or a vowel; empty where another is held on or nothing is written. */
  words: string;
  /** Glides to the next note. */
  slide?: boolean;
  /** The loudness mark it stands under; absent: none was written. */
  loud?: LoudnessMark;
  /** A breath or the end of a line is written after it. */
  breath?: boolean;
}

/** One bar: its printed number, where it begins and how long it is (crotchets). */
export interface Bar {
  number: string;
  start: number;
  beats: number;
}

/** The tempo from a place on, crotchets a minute. */
export interface TempoMark {
  start: number;
  tempo: number;
}

/** A melody with its words, as it is kept. */
export interface Song {
  title: string;
  /** Of what kind ("folk song", "musical theatre"); may be empty. */
  style: string;
  /** Of its words, as a code ("en"); empty: not said. */
  language: string;
  /** Beats of a bar and their kind at the beginning: [3, 4]. */
  meter: [number, number];
  /** Sharps (positive) or flats of its key signature. */
  fifths: number;
  tempi: TempoMark[];
  bars: Bar[];
  notes: SongNote[];
}

/** Seconds from the beginning of the song to a place in crotchets. */
export function secondsAt({ tempi }: Pick<Song, 'tempi'>, place: number): number {
  let seconds = 0;
  for (let i = 0; i < tempi.length; i++) {
    const from = i === 0 ? 0 : tempi[i].start;
    const to = Math.min(place, tempi[i + 1]?.start ?? Infinity);
    if (to <= from) break;
    seconds += ((to - from) * 60) / tempi[i].tempo;
  }
  return seconds;
}

/** Index of the bar a place lies in. */
export function barAt({ bars }: Pick<Song, 'bars'>, place: number): number {
  let [low, high] = [0, bars.length - 1];
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (bars[middle].start <= place + 1e-6) low = middle;
    else high = middle - 1;
  }
  return low;
}
