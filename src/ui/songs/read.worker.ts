import { said } from '../../core/words/said';
import { MusicFileError } from '../../core/format/music-file';
import { songFromFile } from '../../core/format/song-file';
import type { ReadSong, ToRead } from './read-file';

/** Reads a file of music aside, so that a large one holds no page up. */
self.onmessage = ({ data: { bytes, name, part } }: MessageEvent<ToRead>) => {
  let answer: ReadSong;
  try {
    answer = { file: songFromFile(bytes, name, part) };
  } catch (error) {
    answer = {
      problem:
        error instanceof MusicFileError
          ? error.says
          : said('{file} could not be read: export it anew as MusicXML or MIDI and try again.', { file: { own: name } }),
    };
  }
  self.postMessage(answer);
};
