import type { Exercise } from '../../core/exercise/types';
import { download, fileName } from './download';

// What makes these files comes when one is asked for: it is most of what a page would load for nothing.

/** An exercise in its keys as a MIDI file to keep. */
export async function downloadMidi(e: Exercise, keys: readonly number[], tempo: number): Promise<void> {
  const { toMidi } = await import('../../core/format/midi');
  download(fileName(e.name, 'mid'), toMidi(e, keys, tempo) as Uint8Array<ArrayBuffer>, 'audio/midi');
}

/** An exercise as notation to keep (MusicXML). */
export async function downloadMusicXml(
  e: Exercise,
  options: Parameters<(typeof import('../../core/format/musicxml'))['toMusicXml']>[1],
): Promise<void> {
  const { toMusicXml } = await import('../../core/format/musicxml');
  download(fileName(e.name, 'musicxml'), toMusicXml(e, options), 'application/vnd.recordare.musicxml+xml');
}

/** An exercise as a file to share with another Wendel. */
export async function downloadExercise(e: Exercise): Promise<void> {
  const { toExerciseFile } = await import('../../core/format/exercise');
  download(fileName(e.name, 'json'), toExerciseFile(e), 'application/json');
}
