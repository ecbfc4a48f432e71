import { z } from 'zod';
import { LONGEST_SOUND } from './exercise';
import { SaidShape } from './said';
import { SongTitle } from './song';
import { MATERIALS, STRANDS } from '../exercise/types';
import type { Edits } from '../plan/edits';
import type { Terms } from '../plan/request';
import { DATE_KINDS, RoadDate } from '../plan/dates';
import { MOST_PHASE_WEEKS } from '../plan/road';
import { RuleId, RULES } from '../plan/rules';
import { LONGEST_CUE, MOST_CUES, PARTS, PlanItem } from '../plan/types';

/** An item of a plan, as it is sent, kept and taken along. */
export const ItemShape = z.object({
  exerciseId: z.string().min(1).max(60),
  part: z.enum(PARTS),
  keys: z.array(z.number().int().min(24).max(96)).min(1, 'Choose at least one key.').max(40),
  sound: z.string().trim().min(1).max(LONGEST_SOUND),
  straws: SaidShape.optional(),
  tempo: z.number().min(30).max(240),
  minutes: z.number().min(0.5).max(20),
  timesADay: z.number().int().min(1).max(12),
  days: z.array(z.number().int().min(0).max(6)).max(7),
  reason: SaidShape,
  caution: SaidShape,
  cues: z.array(z.string().trim().min(1).max(LONGEST_CUE)).max(MOST_CUES).optional().describe('The coach’s own words between the keys'),
  rules: z.array(z.enum(Object.keys(RULES) as [RuleId, ...RuleId[]])),
  advance: SaidShape,
}) satisfies z.ZodType<PlanItem>;

/** A week holds no more exercises, and no longer a word with it. */
export const MOST_ITEMS = 30;
export const LONGEST_NOTE = 2000;
export const ItemsShape = z.array(ItemShape).max(MOST_ITEMS);

const Straws = z.object({
  diameterMm: z.number().min(1).max(15),
  lengthMm: z.number().min(30).max(400),
  count: z.number().int().min(1).max(12),
});
const Grade = z.number().int().min(1).max(6).optional();

/** Weeks that phases last, by their ids. */
/** Most songs of an evening. */
const MOST_SONGS = 40;

/** Something in a singer's calendar. */
export const DateShape = z.object({
  day: z.iso.date('Choose the day.'),
  until: z.iso.date().optional(),
  kind: z.enum(DATE_KINDS),
  name: z.string().trim().max(120).optional(),
  songs: z.array(SongTitle).max(MOST_SONGS).optional().describe('Titles of the songs sung then, in their order'),
}) satisfies z.ZodType<RoadDate>;

export const PhaseWeeksShape = z.record(z.string().max(40), z.number().int().min(1).max(MOST_PHASE_WEEKS));

/** What is agreed about practice. */
export const TermsShape = z.object({
  minutesADay: z.number().int().min(5, 'At least five minutes a day.').max(60, 'At most an hour a day.'),
  materials: z.array(z.enum(MATERIALS)).readonly(),
  straws: z.array(Straws).max(12).readonly(),
  phase: z.number().int().min(0).max(9),
  phaseId: z.string().max(40).optional(),
  dates: z.array(DateShape).max(60).optional(),
  beltMinutes: z.number().int().min(0).max(120, 'At most two hours a week.').optional(),
  phaseWeeks: PhaseWeeksShape.optional(),
  trial: z.object({ id: z.uuid(), begun: z.iso.date() }).optional(),
  grades: z.object(Object.fromEntries(STRANDS.map((s) => [s, Grade])) as Record<(typeof STRANDS)[number], typeof Grade>),
}) satisfies z.ZodType<Terms>;

/** What a coach changed in a suggestion. */
export const EditsShape = z.object({
  out: z.array(z.string().max(60)).max(100),
  added: ItemsShape,
  changed: z.record(z.string().max(60), ItemShape.partial()),
  order: z.array(z.string().max(60)).max(60).nullable(),
}) satisfies z.ZodType<Edits>;
