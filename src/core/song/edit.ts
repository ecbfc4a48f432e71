import { evenBars, upbeatOf } from './typed';
import type { Song, SongNote } from './types';

/** What is done to one note on the staff. */
export type NoteEdit =
  | { does: 'move'; semitones: number }
  /** Twice or half as long; what comes later moves. */
  | { does: 'stretch'; by: number }
  | { does: 'remove' }
  /** The same once more after it. */
  | { does: 'repeat' };

/** As far as a song is kept (format/song.ts), and lengths that are written (this house's). */
const LOWEST = 20;
const HIGHEST = 110;
const SHORTEST = 1 / 8;
const LONGEST = 32;

/**
 * A song with one note changed, barred evenly again; the song itself where it can't be (the last note taken out, a pitch or a length beyond
 * what is written).
 */
export function edited(song: Song, index: number, edit: NoteEdit): Song {
  const note = song.notes[index];
  if (!note) return song;
  const later = (by: number) => song.notes.slice(index + 1).map((n): SongNote => ({ ...n, start: n.start + by }));
  const before = song.notes.slice(0, index);
  const put = (notes: SongNote[]): Song => {
    const end = notes[notes.length - 1].start + notes[notes.length - 1].beats;
    return { ...song, notes, bars: evenBars((song.meter[0] * 4) / song.meter[1], end, upbeatOf(song)) };
  };
  switch (edit.does) {
    case 'move': {
      const midi = note.midi + edit.semitones;
      return midi < LOWEST || midi > HIGHEST ? song : { ...song, notes: [...before, { ...note, midi }, ...later(0)] };
    }
    case 'stretch': {
      const beats = note.beats * edit.by;
      return beats < SHORTEST || beats > LONGEST ? song : put([...before, { ...note, beats }, ...later(beats - note.beats)]);
    }
    case 'remove':
      return song.notes.length === 1 ? song : put([...before, ...later(-note.beats)]);
    case 'repeat':
      return put([...before, note, { ...note, start: note.start + note.beats, words: '' }, ...later(note.beats)]);
  }
}
