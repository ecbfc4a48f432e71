import { likelyTonic, stepAt } from '../../core/exercise/pattern';
import type { Exercise } from '../../core/exercise/types';
import type { Tune } from '../../core/format/midi';

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
  caution: 'Only as loud as it stays connected. Stop if it scratches.',
});

export const variantOf = (e: Exercise): Exercise => ({ ...e, id: crypto.randomUUID(), name: `${e.name}, varied` });

/** A tune as an exercise, on its likely tonic. */
function fromTune({ notes, tempo }: Tune, name: string): Exercise {
  const blank = emptyExercise();
  const tonic = likelyTonic(notes.map((n) => n.midi));
  const usual = Math.round(Math.min(240, Math.max(30, tempo ?? blank.tempo[1])));
  return {
    ...blank,
    name,
    steps: notes.map((n, i) => stepAt(n.midi - tonic, n.beats, n.slide && i < notes.length - 1)),
    tempo: [Math.max(30, usual - 16), usual, Math.min(240, usual + 16)],
  };
}

const LARGEST_BYTES = 2_000_000;

/** An exercise from a file of ours (JSON), or a tune (MIDI, MusicXML) to make one of. @throws Error in words. */
export async function importFile(file: File): Promise<Exercise> {
  // What reads these files comes when there is one.
  const [{ fromMidi }, { MusicFileError }] = await Promise.all([import('../../core/format/midi'), import('../../core/format/music-file')]);
  if (file.size > LARGEST_BYTES) throw new MusicFileError(`${file.name} is larger than an exercise can be (2 MB).`);
  const name = file.name.replace(/\.[^.]+$/, '').slice(0, 80);
  if (/\.midi?$/i.test(file.name)) return fromTune(fromMidi(await file.arrayBuffer()), name);
  if (/\.(musicxml|xml)$/i.test(file.name))
    return fromTune((await import('../../core/format/musicxml')).fromMusicXml(await file.text()), name);
  try {
    return (await import('../../core/format/exercise')).fromExerciseFile(await file.text(), crypto.randomUUID());
  } catch (error) {
    throw new MusicFileError(`${file.name}: ${(error as Error).message}`);
  }
}
