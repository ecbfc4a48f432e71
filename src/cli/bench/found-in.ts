import type { Followed } from '../../core/song/follow';
import { barAt, type Song } from '../../core/song/types';

/** So near to where a note begins it is found. */
export const NEAR_S = 0.08;

/** A note of a take, and between which moments it begins. */
export interface Beginning {
  note: number;
  fromS: number;
  byS: number;
}

/** How many notes of a take were found to begin within 80 ms of where they do, and how many lie in the right bar. */
export function foundIn(song: Song, truth: readonly Beginning[], followed: Followed | null): { near: number; inBar: number } {
  const notes = followed?.notes ?? [];
  const barOf = (note: number) => barAt(song, song.notes[note].start);
  return {
    near: truth.filter((t) => notes.some((n) => n.note === t.note && n.startS >= t.fromS - NEAR_S && n.startS <= t.byS + NEAR_S)).length,
    inBar: truth.filter((t) => notes.some((n) => n.startS <= t.byS + NEAR_S && t.byS < n.endS && barOf(n.note) === barOf(t.note))).length,
  };
}
