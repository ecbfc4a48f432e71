import { songInTime } from '../song/in-time';
import { phrasesOf } from '../song/phrases';
import type { Song } from '../song/types';
import type { SimTask } from './score';

/** A song as a task for the simulated singer: phrase after phrase, `semitones` higher than written, a breath where the song has one. */
export const songTask = (song: Song, semitones = 0): SimTask => ({
  kind: 'exercise',
  keys: songInTime(song, phrasesOf(song), semitones, true),
});
