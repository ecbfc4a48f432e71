import { saidOf } from '../../core/words/said-error';
import { said } from '../../core/words/said';
import { exerciseOfTune } from '../../core/exercise/tune';
import type { Exercise } from '../../core/exercise/types';
import { MusicFileError } from '../../core/format/music-file';
import { readSongFile } from '../songs/read-file';

export const variantOf = (e: Exercise): Exercise => ({ ...e, id: crypto.randomUUID(), name: `${e.name}, varied` });

const LARGEST_BYTES = 2_000_000;

/** An exercise from a file of ours (JSON), or a tune (MIDI, MusicXML) to make one of. @throws Error in words. */
export async function importFile(file: File): Promise<Exercise> {
  if (file.size > LARGEST_BYTES)
    throw new MusicFileError(said('{file} is larger than an exercise can be (2 MB).', { file: { own: file.name } }));
  if (/\.(midi?|musicxml|xml|mxl)$/i.test(file.name)) {
    const { notes, tempi } = (await readSongFile(file)).song;
    return exerciseOfTune(notes, tempi[0].tempo, { id: crypto.randomUUID(), name: file.name.replace(/\.[^.]+$/, '').slice(0, 80) });
  }
  try {
    // What reads these files comes when there is one.
    return (await import('../../core/format/exercise')).fromExerciseFile(await file.text(), crypto.randomUUID());
  } catch (error) {
    throw new MusicFileError(said('{file}: {problem}', { file: { own: file.name }, problem: saidOf(error) }));
  }
}
