import type { Said } from '../words/said';
import { keysFor, octaveFor, SongKey } from './keys';
import type { Song } from './types';
import type { SongVoice } from './voice';
import { keyBecause, keyInWords } from './words';

/** The key of a song that suits a voice best, and why. */
export interface Fit {
  semitones: number;
  key: string;
  /** How it lies to the original. */
  says: Said;
  level: SongKey['level'];
  /** False: no key does. */
  fits: boolean;
  because: Said;
}

/** The best key of a song for a voice. */
export function fitOf(song: Song, voice: SongVoice): Fit {
  const keys = keysFor(song, voice);
  const [best] = keys;
  return {
    semitones: best.semitones,
    key: best.key,
    says: keyInWords(best, octaveFor(song, voice)),
    level: best.level,
    fits: best.standing === 'fits',
    because: keyBecause(best, keys, song, voice),
  };
}
