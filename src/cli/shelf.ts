// npm run -s shelf -- [--json]: every exercise of the shelf.
import { SHELF } from '../core/exercise/shelf';
import { patternText, stepSemitones } from '../core/exercise/pattern';
import { weightOn } from '../core/exercise/weight';
import type { Exercise } from '../core/exercise/types';

/** An exercise as the command line prints it; the schema is in docs/shelf.schema.json. */
const exerciseJson = (e: Exercise) => ({
  id: e.id,
  name: e.name,
  family: e.family,
  strand: e.strand,
  grade: e.grade,
  role: e.role,
  sounds: e.sounds,
  tempo: { slowest: e.tempo[0], usual: e.tempo[1], fastest: e.tempo[2] },
  breathBeats: e.breathBeats,
  text: patternText(e.steps),
  pattern: e.steps.map((s) => ({
    degree: s.degree,
    ...(s.alter ? { alter: s.alter } : {}),
    semitones: stepSemitones(s),
    beats: s.beats,
    slide: s.slide ?? false,
  })),
  measure: e.measure,
  aim: e.aim,
  loudness: e.loudness,
  place: e.place,
  weight: e.weight,
  weightOf: Object.fromEntries(e.sounds.map((sound) => [sound, weightOn(e, sound)])),
  needs: e.needs,
  after: e.after,
  suits: e.suits,
  avoid: e.avoid,
  schools: e.schools,
});

if (process.argv.includes('--json')) process.stdout.write(`${JSON.stringify(SHELF.map(exerciseJson))}\n`);
else
  for (const e of SHELF)
    process.stdout.write(`${e.id.padEnd(24)} ${e.strand} ${e.grade}  ${patternText(e.steps)}  on ${e.sounds.join(', ')}\n`);
