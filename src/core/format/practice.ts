import { z } from 'zod';
import { LONGEST_SOUND } from './exercise';
import { LONGEST_SHORT_S } from './short-sound';
import { FAULTS, VERDICTS } from '../judge/types';
import { SIGNS } from '../plan/safety';
import { ARMS, ELSEWHERE_IDS, type Entry, FELT, LONGEST_WORD, MOST_ELSEWHERE_MIN } from '../practice/types';
import { CHECKED } from '../practice/voice-check';

const Because = z.object({
  fault: z.enum(FAULTS),
  midi: z.number().min(0).max(130).optional(),
  by: z.number().min(-1000).max(1000).optional(),
});

const Before = z.object({ kind: z.literal('before'), hoarse: z.boolean(), ill: z.boolean(), pain: z.boolean(), tired: z.boolean() });
const Done = z.object({
  kind: z.literal('item'),
  exerciseId: z.string().min(1).max(60),
  name: z.string().trim().min(1).max(80),
  sound: z.string().max(LONGEST_SOUND),
  tempo: z.number().min(20).max(300),
  keys: z.array(z.number().int().min(12).max(108)).max(200),
  seconds: z
    .number()
    .min(0)
    .max(4 * 3600),
  load: z
    .object({
      voicedS: z
        .number()
        .min(0)
        .max(4 * 3600),
      cycles: z.number().int().min(0).max(2e7),
      beltS: z
        .number()
        .min(0)
        .max(4 * 3600)
        .optional(),
    })
    .nullable(),
  success: z.boolean().nullable(),
  judged: z
    .object({
      verdict: z.enum(VERDICTS),
      because: Because.extend({ key: z.number().int().min(0).max(200).optional() }).nullable(),
      keys: z.array(z.object({ tonicMidi: z.number().min(12).max(108), verdict: z.enum(VERDICTS), because: Because.nullable() })).max(200),
    })
    .optional(),
  effort: z.number().int().min(0).max(10).nullable(),
  signs: z.array(z.enum(SIGNS)).max(SIGNS.length),
  byHand: z.boolean(),
  word: z.string().trim().max(LONGEST_WORD).optional(),
  spokenS: z.number().positive().max(LONGEST_SHORT_S).optional(),
  felt: z.array(z.enum(FELT)).max(FELT.length).optional(),
  lighter: z.boolean().optional(),
});
const Check = z.object({
  kind: z.literal('check'),
  warm: z.boolean(),
  markerMidi: z.number().int().min(24).max(100),
  sounded: z.boolean().nullable(),
  checked: z.partialRecord(z.enum(CHECKED.map((c) => c.id)), z.number().min(-1000).max(1000)),
});

const Elsewhere = z
  .object({
    kind: z.literal('elsewhere'),
    where: z.enum(ELSEWHERE_IDS),
    minutes: z.number().int().min(0).max(MOST_ELSEWHERE_MIN),
    instead: z.uuid().optional(),
  })
  .refine(({ minutes, instead }) => minutes > 0 || instead, 'Other singing lasts a minute at least.');

const Broke = z.object({ leapSt: z.number().min(0).max(48), heard: z.number().min(0).max(100) });
const TrialDay = z.object({
  kind: z.literal('trial'),
  trial: z.uuid(),
  arm: z.enum(ARMS),
  minutes: z.number().min(0).max(60),
  before: Broke,
  after: Broke,
});

/** A line of a singer's log, as it is sent, kept and taken along. */
export const EntryShape = z.object({
  id: z.uuid(),
  assignmentId: z.uuid().nullable(),
  day: z.iso.date(),
  at: z.iso.datetime(),
  what: z.discriminatedUnion('kind', [Before, Done, Check, Elsewhere, TrialDay]),
}) satisfies z.ZodType<Entry>;
