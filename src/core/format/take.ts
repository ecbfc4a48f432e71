import { z } from 'zod';
import type { Asked, Trace } from '../take/types';
import { SaidShape } from './said';

/** Where a take's sound came from. */
export const SOURCES = ['microphone', 'file', 'simulated'] as const;
export const SHA256 = z.string().regex(/^[0-9a-f]{64}$/);
/** Nobody's recordings are older (the first sound was recorded in 1860). */
export const FIRST_RECORDING = new Date('1860-01-01');

/** What a take was asked to be. */
export const AskedShape: z.ZodType<Asked> = z.object({
  degrees: z.array(z.number().int().min(1).max(22)).min(1).max(40).optional(),
  tonicMidi: z.number().int().min(12).max(108).optional(),
  slid: z.boolean().optional(),
});

/** The coach's word on a moment of a take. */
export const MarkShape = z.object({
  timeS: z.number().min(0).max(7200),
  midi: z.number().min(12).max(120),
  direction: z.enum(['up', 'down']),
  verdict: z.enum(['accept', 'reject', 'move', 'add']),
  by: z.enum(['coach', 'singer']).default('coach'),
});

const Direction = z.enum(['up', 'down']);
const Range = z.looseObject({ lowestMidi: z.number(), highestMidi: z.number() });
/** More than any take holds: 15 minutes of the shortest notes. */
const MOST = 20_000;

/** What was found in a take, as far as pages and maps read it; earlier engines left some of it out. */
export const FindingsShape = z.looseObject({
  engine: z.string().max(60),
  task: z.string().max(20),
  durationS: z.number().min(0),
  sampleRate: z.number().positive(),
  quality: z.looseObject({ clipped: z.boolean(), snrDb: z.number(), usable: z.boolean(), reasons: z.array(SaidShape).max(40) }),
  notes: z.array(z.looseObject({ startS: z.number(), endS: z.number(), midi: z.number(), cents: z.number() })).max(MOST),
  pattern: z
    .looseObject({
      name: z.string().max(200),
      degrees: z.array(z.number()).max(200),
      keys: z
        .array(
          z.looseObject({
            tonicMidi: z.number(),
            startS: z.number(),
            endS: z.number(),
            notes: z.array(z.looseObject({ degree: z.number(), note: z.number().nullable(), cents: z.number().nullable() })).max(200),
            extra: z.array(z.number()).max(MOST),
          }),
        )
        .max(200),
    })
    .nullable(),
  calibrated: z.boolean(),
  range: Range.nullable(),
  held: Range.nullable(),
  speakingMidi: z.number().nullable(),
  legs: z
    .array(
      z.looseObject({
        startS: z.number(),
        endS: z.number(),
        direction: Direction,
        lowestMidi: z.number(),
        highestMidi: z.number(),
        levels: z
          .array(z.object({ midi: z.number(), db: z.number() }))
          .max(200)
          .optional(),
        harmonics: z
          .array(z.object({ midi: z.number(), db: z.array(z.number().nullable()).max(200) }))
          .max(2000)
          .optional(),
        crossOvers: z.array(z.looseObject({ timeS: z.number(), midi: z.number(), widthSt: z.number(), confidence: z.number() })).max(200),
      }),
    )
    .max(MOST),
  events: z
    .array(
      z.looseObject({
        timeS: z.number(),
        midi: z.number(),
        fromMidi: z.number(),
        toMidi: z.number(),
        direction: Direction,
        kind: z.enum(['flip', 'crack', 'dip', 'timbre']),
        confidence: z.number(),
        dipDb: z.number(),
      }),
    )
    .max(MOST),
  profile: z
    .array(z.looseObject({ midi: z.number(), seconds: z.number(), levelDb: z.number(), clarity: z.number(), head: z.number() }))
    .max(200),
});

/** The curve a take is drawn by: values of each 10 ms. */
export const TraceShape = z.object({
  hopS: z.number().positive(),
  midi: z.array(z.number()),
  levelDb: z.array(z.number()),
  head: z.array(z.number()),
}) satisfies z.ZodType<Trace>;
