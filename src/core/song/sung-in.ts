import type { NoteSpan } from '../take/types';
import { evenBars } from './typed';
import type { Song, SongNote } from './types';

/** Lengths are taken to the nearest of these parts of a crotchet. */
const GRID = 0.5;
/** A gap shorter than this between two notes is a consonant, seconds. */
const CONSONANT_S = 0.18;
/** Shorter than this is an ornament or a slip, seconds. */
const LEAST_S = 0.09;

/**
 * The notes of a take as a melody: barred by a tempo (crotchets a minute), the first note on a first beat unless an upbeat (crotchets) goes before;
 * to be corrected by hand. Null where nothing was sung.
 */
export function sungIn(
  notes: readonly NoteSpan[],
  { tempo, meter, upbeat = 0, title }: { tempo: number; meter: [number, number]; upbeat?: number; title: string },
): Song | null {
  const heard = notes.filter((n) => n.endS - n.startS >= LEAST_S);
  if (heard.length === 0) return null;
  const beats = (seconds: number) => Math.round((seconds * tempo) / 60 / GRID) * GRID;
  const from = heard[0].startS;
  const out: SongNote[] = [];
  heard.forEach((n, i) => {
    const start = beats(n.startS - from);
    const next = heard[i + 1];
    const joined = next && next.startS - n.endS < CONSONANT_S;
    const end = Math.max(start + GRID, beats((joined ? next.startS : n.endS) - from));
    const last = out[out.length - 1];
    // Two within one part of the grid: the longer stands.
    if (last && start < last.start + GRID - 1e-6) {
      if (end - start > last.beats) last.midi = n.midi;
      return;
    }
    if (last) last.beats = Math.min(last.beats, start - last.start);
    out.push({ midi: n.midi, start, beats: end - start, words: '' });
  });
  const full = (meter[0] * 4) / meter[1];
  const last = out[out.length - 1];
  return {
    title,
    style: '',
    language: '',
    meter,
    fifths: 0,
    tempi: [{ start: 0, tempo }],
    bars: evenBars(full, last.start + last.beats, upbeat),
    notes: out,
  };
}
