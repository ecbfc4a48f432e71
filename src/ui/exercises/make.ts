import { saidOf } from '../../core/words/said-error';
import { said } from '../../core/words/said';
import type { Exercise } from '../../core/exercise/types';
import { MusicFileError } from '../../core/format/music-file';
import type { Song } from '../../core/song/types';
import { lineOf } from '../../core/song/work';
import { readSongFile } from '../songs/read-file';

/** A blank exercise to write in. */
export const emptyExercise = (): Exercise => ({
  id: crypto.randomUUID(),
  name: '',
  family: 'scale',
  strand: 'crossing',
  role: 'work',
  steps: [1, 2, 3, 2, 1].map((degree) => ({ degree, beats: 1 })),
  tempo: [72, 90, 110],
  breathBeats: 2,
  sounds: ['oo', 'oh', 'ah'],
  aim: 'across',
  loudness: 'even',
  place: 'across',
  grade: 3,
  weight: 0,
  keys: { from: { edge: 'top', anchor: 'change', semitones: 0 }, to: { edge: 'top', anchor: 'change', semitones: 4 } },
  suits: [],
  avoid: [],
  schools: [],
  after: [],
  needs: [],
  minutes: 1,
  timesADay: 2,
  measure: 'crosses',
  how: '',
  purpose: '',
  caution: said('Only as loud as it stays connected. Stop if it scratches.') as string,
});

export const variantOf = (e: Exercise): Exercise => ({ ...e, id: crypto.randomUUID(), name: `${e.name}, varied` });

/** A tune as an exercise, on its likely tonic. */
function fromTune({ notes, tempi }: Song, name: string): Exercise {
  const usual = Math.round(Math.min(240, Math.max(30, tempi[0].tempo)));
  return { ...emptyExercise(), name, steps: lineOf(notes).steps, tempo: [Math.max(30, usual - 16), usual, Math.min(240, usual + 16)] };
}

const LARGEST_BYTES = 2_000_000;

/** An exercise from a file of ours (JSON), or a tune (MIDI, MusicXML) to make one of. @throws Error in words. */
export async function importFile(file: File): Promise<Exercise> {
  if (file.size > LARGEST_BYTES)
    throw new MusicFileError(said('{file} is larger than an exercise can be (2 MB).', { file: { own: file.name } }));
  if (/\.(midi?|musicxml|xml|mxl)$/i.test(file.name))
    return fromTune((await readSongFile(file)).song, file.name.replace(/\.[^.]+$/, '').slice(0, 80));
  try {
    // What reads these files comes when there is one.
    return (await import('../../core/format/exercise')).fromExerciseFile(await file.text(), crypto.randomUUID());
  } catch (error) {
    throw new MusicFileError(said('{file}: {problem}', { file: { own: file.name }, problem: saidOf(error) }));
  }
}
