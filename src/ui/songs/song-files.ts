import type { Song } from '../../core/song/types';
import { download, fileName } from '../kit/download';

// What makes these files comes when one is asked for.

/** A song in a key as notation to keep (MusicXML). */
export async function downloadSongMusicXml(song: Song, semitones = 0): Promise<void> {
  const { songToMusicXml } = await import('../../core/format/song-musicxml');
  download(fileName(song.title, 'musicxml'), songToMusicXml(song, semitones), 'application/vnd.recordare.musicxml+xml');
}

/** A song in a key as a MIDI file to keep. */
export async function downloadSongMidi(song: Song, semitones = 0): Promise<void> {
  const { songToMidi } = await import('../../core/format/song-midi');
  download(fileName(song.title, 'mid'), songToMidi(song, semitones) as Uint8Array<ArrayBuffer>, 'audio/midi');
}
