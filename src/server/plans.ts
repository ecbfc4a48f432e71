import { z } from 'zod';
import { anchorsOf, itemFor, planFor } from '../core/plan/plan';
import { exerciseById, SHELF } from '../core/exercise/shelf';
import { keysFor } from '../core/exercise/keys';
import { assignmentsOfSinger, findAssignment, insertAssignment } from '../data/assignments';
import { Problem } from './problem';
import { mapOf, mustFindSinger } from './singers';
import { inPresentStudio } from './studio';

const known = new Set(SHELF.map((e) => e.id));

export const AssignmentInput = z.object({
  singerId: z.uuid(),
  note: z.string().trim().max(2000).default(''),
  items: z
    .array(
      z.object({
        exerciseId: z.string().refine((id) => known.has(id), 'This exercise is not on the shelf.'),
        keys: z.array(z.number().int().min(24).max(96)).min(1, 'Choose at least one key.').max(30),
        sound: z.string().trim().min(1).max(40),
        tempo: z.number().min(30).max(240),
        minutes: z.number().min(0.5).max(20),
        timesADay: z.number().int().min(1).max(12),
        reason: z.string().trim().max(500),
        caution: z.string().trim().max(500),
      }),
    )
    .min(1, 'Choose at least one exercise.')
    .max(20),
});

/** What the plan page shows: map, suggestion with reasons, what else fits, and earlier assignments. */
export async function viewPlan(singerId: string) {
  return inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, singerId);
    const map = await mapOf(tx, singerId);
    const plan = planFor(map, singer.voiceType);
    const placed = anchorsOf(map, singer.voiceType);
    const others = placed
      ? SHELF.filter((e) => keysFor(e, placed.anchors).length > 0).map((e) =>
          itemFor(e, placed.anchors, map.findings, placed.changeMeasured),
        )
      : [];
    const assigned = await assignmentsOfSinger(tx, singerId);
    return { singer, map, plan, others, assigned };
  });
}

export async function assign(input: z.infer<typeof AssignmentInput>): Promise<string> {
  return inPresentStudio(async (tx) => {
    await mustFindSinger(tx, input.singerId);
    return insertAssignment(tx, input.singerId, input.note, input.items);
  });
}

/** An assignment with its singer and exercises, for the practice sheet. */
export async function viewAssignment(id: string) {
  return inPresentStudio(async (tx) => {
    const assignment = z.uuid().safeParse(id).success ? await findAssignment(tx, id) : undefined;
    if (!assignment) throw new Problem('There is no such assignment.', 404);
    const singer = await mustFindSinger(tx, assignment.singerId);
    const map = await mapOf(tx, singer.id);
    return { assignment, singer, map, items: assignment.items.map((item) => ({ item, exercise: exerciseById(item.exerciseId) })) };
  });
}
