import { z } from 'zod';
import { VERDICTS } from '../judge/types';
import type { Course, LessonStep, Protocol } from '../lesson/types';
import { TASKS } from '../take/types';
import { LONGEST_SOUND, SungExerciseShape } from './exercise';
import { SaidShape } from './said';

const Midi = z.number().int().min(12).max(115);

const StepShape: z.ZodType<LessonStep> = z.object({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1, 'Give the step a name.').max(80),
  how: z.string().trim().max(400),
  task: z.enum(TASKS),
  vowel: z.string().max(LONGEST_SOUND),
  degrees: z.array(z.number().int().min(1).max(22)).min(1).max(40).nullable(),
  slide: z.boolean().optional(),
  exercise: SungExerciseShape.optional(),
  keys: z
    .object({
      from: z.enum(['low', 'change', 'high', 'tonic']),
      semitones: z.number().int().min(-36).max(115),
      step: z.number().int().min(-12).max(12),
      until: z.union([z.literal('stop'), z.number().int().min(1).max(40)]),
    })
    .nullable(),
  times: z.number().int().min(1).max(20),
  colours: z.boolean().optional(),
  loudnesses: z.boolean().optional(),
  tempo: z.number().min(30).max(240),
  testsRange: z.boolean(),
  optional: z.boolean().optional(),
});

const Health = z.object({
  hoarse: z.boolean(),
  ill: z.boolean(),
  pain: z.boolean(),
  note: z.string().trim().max(1000),
  goOn: z.boolean().optional(),
});

/** Steps of one lesson, with all that is put in while it goes on. */
const MOST_SUNG = 200;

const JudgedShape = z.object({
  takeId: z.uuid(),
  exerciseId: z.string().min(1).max(60),
  name: z.string().max(80),
  sound: z.string().max(LONGEST_SOUND),
  tonicMidi: Midi,
  verdict: z.enum(VERDICTS),
  says: SaidShape,
});

/** Where a lesson stands, as it is sent, kept and taken along. */
export const CourseShape: z.ZodType<Course> = z.object({
  protocolId: z.string().max(60),
  steps: z.array(StepShape).max(MOST_SUNG, `A lesson holds ${MOST_SUNG} steps at most: end it and begin another.`),
  health: Health.nullable(),
  voice: z.object({
    low: Midi,
    change: Midi,
    high: Midi,
    young: z.boolean().optional(),
    pinned: z.object({ low: z.number().optional(), high: z.number().optional() }).optional(),
  }),
  at: z.number().int().min(0).max(MOST_SUNG),
  count: z.number().int().min(0).max(1000),
  tonicMidi: Midi.nullable(),
  held: z.boolean(),
  confirming: z.boolean(),
  vowel: z.string().max(LONGEST_SOUND).nullable(),
  judged: z.array(JudgedShape).max(2000).optional(),
  walk: z.number().int().min(-12).max(12).optional(),
  skipped: z.record(z.string(), z.string().max(400)),
  revision: z.number().int().min(0).max(1e6),
});

/** A lesson of a coach's own. */
export const ProtocolShape = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1, 'Give the lesson a name.').max(80),
  purpose: z.string().trim().max(200),
  asksHealth: z.boolean(),
  steps: z.array(StepShape).min(1, 'A lesson needs at least one step.').max(60),
}) satisfies z.ZodType<Protocol>;
