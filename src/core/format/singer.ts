import { z } from 'zod';
import { SCHOOL_IDS } from '../map/schools';
import { AGES } from '../plan/ages';
import { ANSWERS } from '../plan/intake';
import { VOICE_TYPES } from '../plan/voice-types';
import { STYLES, WISHES } from '../plan/which-school';

/** What was agreed and told at intake. */
export const IntakeShape = z
  .object({
    /** Agreed to be recorded: the singer, or a guardian for a minor. */
    consent: z.enum(['none', 'singer', 'guardian']).default('none'),
    minor: z.boolean().default(false),
    /** A voice that is changing: no category is held against it. */
    changing: z.boolean().default(false),
    /** How old, as far as it matters for the voice; missing: not said. */
    age: z.enum(AGES).optional(),
    /** Answers to `INTAKE_QUESTIONS`, by their ids; coaches only see them. */
    answers: z.record(z.string().max(40), z.enum(ANSWERS)).optional(),
    /** Lives by the voice. */
    professional: z.boolean().default(false),
    /** The coach wants no categories shown. */
    noCategories: z.boolean().default(false),
    /** What they sing, and what they want most: together with the voice they speak for a school. */
    style: z.enum(STYLES).optional(),
    wish: z.enum(WISHES).optional(),
    goals: z.string().trim().max(2000).default(''),
    /** Health the coach must know of; shown before each lesson. */
    health: z.string().trim().max(2000).default(''),
  })
  .refine((i) => !i.minor || i.consent !== 'singer', 'For a minor a guardian must agree to recording.');

type Told = z.infer<typeof IntakeShape>;
/** As it is kept: the oldest say nothing of some. */
export type Intake = Omit<Told, 'changing' | 'noCategories' | 'professional'> & Partial<Told>;

/** What is entered of a singer. */
export const SingerShape = z.object({
  name: z.string().trim().min(1, 'Give the singer a name.').max(120),
  part: z.string().trim().max(120).default(''),
  voiceType: z.enum(VOICE_TYPES.map((t) => t.id)),
  note: z.string().trim().max(2000).default(''),
  email: z.email('That is no e-mail address.').max(200).nullable().default(null),
  intake: IntakeShape.nullable().default(null),
  school: z.enum(SCHOOL_IDS).nullable().default(null),
});
