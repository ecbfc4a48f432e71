import type { Phrase } from './phrases';
import type { Song } from './types';

/** One phrase of a song as a song of its own: its bars from the first that it touches, its notes and no others, in its tempo. */
export function partOf(song: Song, { first, last, firstBar, lastBar }: Omit<Phrase, 'seconds'>): Song {
  const from = song.bars[firstBar].start;
  const earlier = <T extends { start: number }>(x: T): T => ({ ...x, start: x.start - from });
  const until = song.bars[lastBar].start + song.bars[lastBar].beats;
  const before = song.tempi.filter((t) => t.start <= from).at(-1) ?? song.tempi[0];
  return {
    ...song,
    tempi: [{ ...before, start: 0 }, ...song.tempi.filter((t) => t.start > from && t.start < until).map(earlier)],
    bars: song.bars.slice(firstBar, lastBar + 1).map(earlier),
    notes: song.notes.slice(first, last + 1).map(earlier),
  };
}
