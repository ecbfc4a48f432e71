import { z } from 'zod';
import { exerciseById } from '../core/exercise/shelf';
import { Exercise, MATERIALS, STRANDS } from '../core/exercise/types';
import { SCHOOL_IDS } from '../core/map/schools';
import { planFor } from '../core/plan/plan';
import { Terms, usualRequest, USUAL_TERMS } from '../core/plan/request';
import { PARTS, PlanItem } from '../core/plan/types';
import { RuleId, RULES } from '../core/plan/rules';
import type { Stand } from '../core/practice/chapters';
import { assignmentsOfSinger, findAssignment, insertAssignment, newestOfOthers } from '../data/assignments';
import { StudioTx } from '../data/client';
import { ownExercises } from '../data/exercises';
import { lastHealth } from '../data/lessons';
import { mapOf } from '../data/pooling';
import { lately, practiceOf } from '../data/practice';
import { deleteTemplate, planningOf, putTemplate, savePlanning, templatesOf } from '../data/plans';
import type { AssignedItem } from '../data/schema';
import type { SingerRow } from '../data/singers';
import { dayOf } from './day';
import { wholeShelf } from './exercises';
import { Problem } from './problem';
import { schoolOf } from './settings';
import { mustFindSinger } from './singers';
import { inPresentStudio } from './studio';

const Item = z.object({
  exerciseId: z.string().min(1).max(60),
  part: z.enum(PARTS),
  keys: z.array(z.number().int().min(24).max(96)).min(1, 'Choose at least one key.').max(40),
  sound: z.string().trim().min(1).max(40),
  straws: z.string().max(120).optional(),
  tempo: z.number().min(30).max(240),
  minutes: z.number().min(0.5).max(20),
  timesADay: z.number().int().min(1).max(12),
  days: z.array(z.number().int().min(0).max(6)).max(7),
  reason: z.string().trim().max(500),
  caution: z.string().trim().max(500),
  rules: z.array(z.enum(Object.keys(RULES) as [RuleId, ...RuleId[]])),
  advance: z.string().trim().max(500),
}) satisfies z.ZodType<PlanItem>;

const Items = z.array(Item).max(30);

export const AssignmentInput = z.object({
  singerId: z.uuid(),
  note: z.string().trim().max(2000).default(''),
  startsOn: z.iso.date('Choose the day the week begins.'),
  items: Items.min(1, 'Choose at least one exercise.'),
});

const Straws = z.object({
  diameterMm: z.number().min(1).max(15),
  lengthMm: z.number().min(30).max(400),
  count: z.number().int().min(1).max(12),
});
const Grade = z.number().int().min(1).max(6).optional();

const TermsInput = z.object({
  minutesADay: z.number().int().min(5, 'At least five minutes a day.').max(60, 'At most an hour a day.'),
  materials: z.array(z.enum(MATERIALS)),
  straws: z.array(Straws).max(12),
  phase: z.number().int().min(0).max(9),
  grades: z.object(Object.fromEntries(STRANDS.map((s) => [s, Grade])) as Record<(typeof STRANDS)[number], typeof Grade>),
}) satisfies z.ZodType<Terms>;

const Edits = z.object({
  out: z.array(z.string().max(60)).max(100),
  added: Items,
  changed: z.record(z.string().max(60), Item.partial()),
  order: z.array(z.string().max(60)).max(60).nullable(),
});

export const PlanInput = z.object({
  terms: TermsInput.optional(),
  edits: Edits.nullable().optional(),
  school: z.enum(SCHOOL_IDS).optional(),
});
export const TemplateInput = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1, 'Give the set a name.').max(80),
  items: Items.min(1),
});

/**
 * What the plan page works with: the map, what is agreed, the coach's changes, the studio's own exercises, kept sets, and what
 * was assigned. The plan itself is worked out in the page, so that every change of terms is instant.
 */
export async function viewPlan(singerId: string) {
  return inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, singerId);
    const { terms, edits } = await planningOf(tx, singerId);
    return {
      singer: {
        id: singer.id,
        name: singer.name,
        voiceType: singer.voiceType,
        minor: singer.intake?.minor ?? false,
        goals: singer.intake?.goals ?? '',
      },
      map: await mapOf(tx, singerId),
      school: (await schoolOf(tx, singer)).id,
      today: await lastHealth(tx, singerId),
      terms: terms ?? USUAL_TERMS,
      edits,
      own: await ownExercises(tx),
      templates: await templatesOf(tx),
      others: await newestOfOthers(tx, singerId),
      assigned: (await assignmentsOfSinger(tx, singerId)).map(whole),
      practised: await practiceOf(tx, singerId, lately()),
    };
  });
}

export const savePlan = (singerId: string, change: z.infer<typeof PlanInput>) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, singerId);
    await savePlanning(tx, singerId, change);
  });

/** Assign a week: each item with its exercise as it is now, so that later changes don't alter what was assigned. */
export async function assign(input: z.infer<typeof AssignmentInput>): Promise<string> {
  return inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, input.singerId);
    const whole = await wholeShelf(tx);
    const shelf = new Map(whole.map((e) => [e.id, e]));
    const items = input.items.map((item) => {
      const exercise = shelf.get(item.exerciseId);
      if (!exercise) throw new Problem('One of the exercises is no longer on the shelf: take it out of the plan and assign again.', 400);
      return { ...item, exercise };
    });
    return insertAssignment(tx, { ...input, items, stand: await standOf(tx, singer, whole) });
  });
}

/** Where a singer stands in the plan now: the phase by name, and the grades, expected or confirmed. */
async function standOf(tx: StudioTx, singer: SingerRow, shelf: readonly Exercise[]): Promise<Stand | null> {
  const { terms } = await planningOf(tx, singer.id);
  const plan = planFor(
    usualRequest({
      ...terms,
      map: await mapOf(tx, singer.id),
      voiceType: singer.voiceType,
      school: (await schoolOf(tx, singer)).id,
      minor: singer.intake?.minor ?? false,
      today: await lastHealth(tx, singer.id),
      shelf,
    }),
  );
  return plan && { phase: plan.phases[plan.phase].name, grades: plan.grades };
}

/** An item with what older assignments lack. */
const complete = ({ exercise, ...item }: AssignedItem): PlanItem & { exercise: Exercise } => ({
  ...item,
  part: item.part ?? 'work',
  days: item.days ?? [0, 1, 2, 3, 4, 5, 6],
  rules: item.rules ?? [],
  advance: item.advance ?? '',
  exercise: exercise ?? exerciseById(item.exerciseId),
});

type AssignmentRow = { items: AssignedItem[]; startsOn: string | null; createdAt: Date };

/** An assignment with what older ones lack: their week began on the day they were made. */
export const whole = <T extends AssignmentRow>({ items, startsOn, ...row }: T) => ({
  ...row,
  items: items.map(complete),
  startsOn: startsOn ?? dayOf(row.createdAt),
});

async function mustFindAssignment(tx: StudioTx, id: string) {
  const found = z.uuid().safeParse(id).success ? await findAssignment(tx, id) : undefined;
  if (!found) throw new Problem('There is no such assignment.', 404);
  return whole(found);
}

/** An assignment's items, to be fitted to another voice. */
export const assignedItems = (id: string) => inPresentStudio(async (tx) => (await mustFindAssignment(tx, id)).items);

/** An assignment with its singer and map, for the practice sheet. */
export async function viewAssignment(id: string) {
  return inPresentStudio(async (tx) => {
    const { items, ...assignment } = await mustFindAssignment(tx, id);
    const singer = await mustFindSinger(tx, assignment.singerId);
    return { assignment, singer, map: await mapOf(tx, singer.id), items: items.map((item) => ({ item, exercise: item.exercise })) };
  });
}

export const saveTemplate = (input: z.infer<typeof TemplateInput>) => inPresentStudio((tx) => putTemplate(tx, input));

export const removeTemplate = (id: string) =>
  inPresentStudio(async (tx) => {
    if (z.uuid().safeParse(id).success) await deleteTemplate(tx, id);
  });
