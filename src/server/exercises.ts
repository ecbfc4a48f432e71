import { z } from 'zod';
import { patternSpan } from '../core/exercise/pattern';
import { SHELF } from '../core/exercise/shelf';
import { AIMS, ANCHORS, Exercise, FAMILIES, LOUDNESS_SHAPES, MATERIALS, MEASURES, PLACES, ROLES, STRANDS } from '../core/exercise/types';
import { SCHOOL_IDS } from '../core/map/schools';
import { FINDING_NAMES } from '../core/map/types';
import { StudioTx } from '../data/client';
import { deleteExercise, ownExercises, putExercise } from '../data/exercises';
import { inPresentStudio } from './studio';

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

/** An exercise of the coach's own, as it is sent, kept and shared. */
export const ExerciseInput = z
  .object({
    id: z.uuid(),
    name: z.string().trim().min(1, 'Give the exercise a name.').max(80),
    family: z.enum(FAMILIES),
    strand: z.enum(STRANDS),
    role: z.enum(ROLES),
    steps: z.array(Step).min(1, 'Write at least one note.').max(64, 'At most 64 notes.'),
    tempo: z.tuple([Tempo, Tempo, Tempo]),
    breathBeats: z.number().min(0).max(16),
    sounds: z.array(z.string().trim().min(1).max(40)).min(1, 'Say what to sing it on.').max(8),
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
  })
  .refine((e) => e.tempo[0] <= e.tempo[1] && e.tempo[1] <= e.tempo[2], 'The tempi go from slowest over usual to fastest.')
  .refine((e) => !e.steps[e.steps.length - 1]?.slide, 'The last note has nothing to slide to.')
  .refine(
    (e) => e.steps.length === 0 || patternSpan(e).top - patternSpan(e).bottom <= WIDEST_ST,
    'The pattern is wider than three octaves.',
  )
  .refine((e) => !e.suits.some((f) => e.avoid.includes(f)), 'It can’t suit a finding and be kept from it.') satisfies z.ZodType<Exercise>;

/** Ours and the studio's own. */
export const wholeShelf = async (tx: StudioTx): Promise<Exercise[]> => [...SHELF, ...(await ownExercises(tx))];

export const viewShelf = () => inPresentStudio(async (tx) => ({ own: await ownExercises(tx) }));

export const saveExercise = (input: z.infer<typeof ExerciseInput>) => inPresentStudio((tx) => putExercise(tx, input));

/** Take an exercise of one's own off the shelf; what was assigned keeps it. */
export const removeExercise = (id: string) =>
  inPresentStudio(async (tx) => {
    if (z.uuid().safeParse(id).success) await deleteExercise(tx, id);
  });
