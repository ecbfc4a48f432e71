import { z } from 'zod';
import type { Course, LessonStep, Protocol } from '../lesson/types';
import { TASKS } from '../take/types';

const Midi = z.number().int().min(12).max(115);

const StepShape: z.ZodType<LessonStep> = z.object({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1, 'Give the step a name.').max(80),
  how: z.string().trim().max(400),
  task: z.enum(TASKS),
  vowel: z.string().max(20),
  degrees: z.array(z.number().int().min(1).max(22)).min(1).max(40).nullable(),
  slide: z.boolean().optional(),
  keys: z
    .object({
      from: z.enum(['low', 'change', 'high']),
      semitones: z.number().int().min(-36).max(36),
      step: z.number().int().min(-12).max(12),
      until: z.union([z.literal('stop'), z.number().int().min(1).max(40)]),
    })
    .nullable(),
  times: z.number().int().min(1).max(20),
  colours: z.boolean().optional(),
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

/** Where a lesson stands, as it is sent, kept and taken along. */
export const CourseShape: z.ZodType<Course> = z.object({
  protocolId: z.string().max(60),
  steps: z.array(StepShape).min(1, 'A lesson needs at least one step.').max(60),
  health: Health.nullable(),
  voice: z.object({
    low: Midi,
    change: Midi,
    high: Midi,
    young: z.boolean().optional(),
    pinned: z.object({ low: z.number().optional(), high: z.number().optional() }).optional(),
  }),
  at: z.number().int().min(0).max(60),
  count: z.number().int().min(0).max(1000),
  tonicMidi: Midi.nullable(),
  held: z.boolean(),
  confirming: z.boolean(),
  vowel: z.string().max(20).nullable(),
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
