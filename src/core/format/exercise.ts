import { said } from '../words/said';
import { z } from 'zod';
import { patternSpan } from '../exercise/pattern';
import { AIMS, ANCHORS, Exercise, FAMILIES, LOUDNESS_SHAPES, MATERIALS, MEASURES, PLACES, ROLES, STRANDS } from '../exercise/types';
import { SCHOOL_IDS } from '../map/schools';
import { FINDING_NAMES } from '../map/types';
import { MusicFileError } from './music-file';

/** The longest name of what something is sung on. */
export const LONGEST_SOUND = 40;

const Step = z.object({
  degree: z.number().int().min(-14).max(22),
  alter: z.union([z.literal(-1), z.literal(1)]).optional(),
  beats: z.number().min(0.125).max(16),
  slide: z.boolean().optional(),
});
const Place = z.object({ edge: z.enum(['bottom', 'top']), anchor: z.enum(ANCHORS), semitones: z.number().int().min(-24).max(24) });
const Tempo = z.number().min(30, 'No slower than 30 crotchets a minute.').max(240, 'No faster than 240 crotchets a minute.');
const Words = z.string().trim().max(600);

/** Three octaves: what no voice sings in one breath. */
const WIDEST_ST = 36;

const Fields = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1, 'Give the exercise a name.').max(80),
  family: z.enum(FAMILIES),
  strand: z.enum(STRANDS),
  role: z.enum(ROLES),
  steps: z.array(Step).min(1, 'Write at least one note.').max(64, 'At most 64 notes.'),
  tempo: z.tuple([Tempo, Tempo, Tempo]),
  breathBeats: z.number().min(0).max(16),
  sounds: z.array(z.string().trim().min(1).max(LONGEST_SOUND)).min(1, 'Say what to sing it on.').max(8),
  aim: z.enum(AIMS),
  loudness: z.enum(LOUDNESS_SHAPES),
  place: z.enum(PLACES),
  grade: z.number().int().min(1).max(6),
  weight: z.union([z.literal(-1), z.literal(0), z.literal(1)]),
  keys: z.object({ from: Place, to: Place, most: z.number().int().min(1).max(30).optional() }),
  suits: z.array(z.enum(FINDING_NAMES)),
  avoid: z.array(z.enum(FINDING_NAMES)),
  schools: z.array(z.enum(SCHOOL_IDS)),
  after: z.array(z.string().max(60)).max(10),
  needs: z.array(z.enum(MATERIALS)),
  minutes: z.number().min(0.5).max(10),
  timesADay: z.number().int().min(1).max(8),
  measure: z.enum(MEASURES),
  how: Words.min(1, 'Say in a sentence what the singer does.'),
  purpose: Words,
  caution: Words,
});

type Written = z.infer<typeof Fields>;
const HOLDS_TOGETHER: readonly [(e: Written) => boolean, string][] = [
  [(e) => e.tempo[0] <= e.tempo[1] && e.tempo[1] <= e.tempo[2], 'The tempi go from slowest over usual to fastest.'],
  [(e) => !e.steps[e.steps.length - 1]?.slide, 'The last note has nothing to slide to.'],
  [(e) => e.steps.length === 0 || patternSpan(e).top - patternSpan(e).bottom <= WIDEST_ST, 'The pattern is wider than three octaves.'],
  [(e) => !e.suits.some((f) => e.avoid.includes(f)), 'It can’t suit a finding and be kept from it.'],
];
const checked = <T extends typeof Fields>(fields: T): T =>
  HOLDS_TOGETHER.reduce((shape, [holds, says]) => shape.refine((e) => holds(e as Written), says), fields);

/** An exercise of a coach's own, as it is sent, kept and shared. */
export const ExerciseShape = checked(Fields) satisfies z.ZodType<Exercise>;

/** An exercise as a lesson keeps it: of the shelf too, whose ids are words. */
export const SungExerciseShape: z.ZodType<Exercise> = checked(Fields.extend({ id: z.string().min(1).max(60) }) as unknown as typeof Fields);

const Shared = z.object({ wendel: z.literal('exercise'), version: z.literal(1), exercise: z.looseObject({}) });

/** An exercise as a file to share (JSON). */
export const toExerciseFile = (exercise: Exercise): string => `${JSON.stringify({ wendel: 'exercise', version: 1, exercise }, null, 2)}\n`;

/** An exercise from a file as `toExerciseFile` writes it; it becomes another one's own, by the given id. @throws MusicFileError in words. */
export function fromExerciseFile(text: string, id: string): Exercise {
  let file: unknown;
  try {
    file = JSON.parse(text);
  } catch {
    throw new MusicFileError('It is not an exercise shared from Wendel, a MIDI file or a MusicXML file.');
  }
  const shared = Shared.safeParse(file);
  if (!shared.success) throw new MusicFileError('It is not an exercise shared from Wendel, or one shared from a newer version.');
  const exercise = ExerciseShape.safeParse({ ...shared.data.exercise, id });
  if (exercise.success) return exercise.data;
  const [{ path, message }] = exercise.error.issues;
  throw new MusicFileError(
    said('The exercise in it can’t be used ({where}): {what}', { where: { own: path.join(' ') || '–' }, what: message }),
  );
}
