import { said } from '../words/said';
import { MusicFileError } from './music-file';
import { SongShape } from './song';
import { songFromMidi } from './song-midi';
import { SongFile, songFromMusicXml } from './song-musicxml';

/**
 * The melody of a file, whatever it is: MusicXML, compressed or not, or MIDI; told by its content, not by its name. `part` asks for
 * one of its parts. @throws MusicFileError with what to do.
 */
export function songFromFile(bytes: Uint8Array, name: string, part?: string): SongFile {
  if (bytes.length === 0) throw new MusicFileError('This file is empty: export it anew and try again.');
  const isMidi = String.fromCharCode(...bytes.subarray(0, 4)) === 'MThd';
  const file = (isMidi ? songFromMidi : songFromMusicXml)(bytes, part);
  const bare = name.replace(/^.*[/\\]/, '').replace(/\.[^.]*$/, '');
  const title = (file.song.title === 'Untitled' ? bare : file.song.title).slice(0, 160) || 'Untitled';
  const read = SongShape.safeParse({ ...file.song, title });
  if (read.success) return { ...file, song: read.data };
  throw new MusicFileError(
    said('This file can’t be taken as a song: {what}. Keep only the melody and try again.', { what: read.error.issues[0].message }),
  );
}
