import type { Id } from '../core/format/id';
import type { AssignmentInput, PlanInput, TemplateInput } from '../contract/inputs';
import { z } from 'zod';
import { exerciseById, SHELF } from '../core/exercise/shelf';
import type { Exercise } from '../core/exercise/types';
import type { Planning } from '../core/plan/check';
import { daysToShow } from '../core/plan/dates';
import { worst } from '../core/plan/safety';
import { noticesOf, saidToday } from '../core/practice/health';
import { planFrom, planning, SONG_LINE } from '../core/plan/plan';
import type { PlanItem } from '../core/plan/types';
import { saidKey } from '../core/song/keys';
import { inEnglish } from '../core/format/say';
import { exerciseHow, exerciseName } from '../core/exercise/of-song';
import type { Song } from '../core/song/types';
import { inPhase, usualRequest, USUAL_TERMS } from '../core/plan/request';
import type { Entry } from '../core/practice/types';
import { assignmentsOfSinger, findAssignment, insertAssignment, newestOfOthers } from '../data/assignments';
import { StudioTx } from '../data/client';
import { ownExercises } from '../data/exercises';
import { lastHealth } from '../data/lessons';
import { modelsFor } from '../data/models';
import { mapOf } from './pooling';
import { lately, practiceOf } from '../data/practice';
import { deleteTemplate, planningOf, putTemplate, savePlanning, templatesOf } from '../data/plans';
import type { AssignedItem } from '../data/schema';
import { chosenTitles, newestChoices } from '../data/songs';
import type { SingerRow } from '../data/singers';
import { dayOf } from './day';
import { Refusal } from './refusal';
import { schoolOf } from './settings';
import { mustFindSinger } from './singers';
import type { Context } from './context';

/**
 * What the plan page works with: the map, what is agreed, the coach's changes, the studio's own exercises, kept sets, and what
 * was assigned. The plan itself is worked out in the page, so that every change of terms is instant.
 */
export async function viewPlan(ctx: Context, singerId: Id<'singer'>) {
  const { tx } = ctx;
  const singer = await mustFindSinger(tx, singerId);
  const practised = await practiceOf(tx, singerId, lately());
  const source = await planSourceOf(ctx, singer, practised);
  return {
    ...source,
    singer: {
      ...source.singer,
      name: singer.name,
      goals: singer.intake?.goals ?? '',
      style: singer.intake?.style,
      wish: singer.intake?.wish,
    },
    /** The coach has said how this singer is taught: no other school is proposed. */
    schoolSaid: singer.school !== null,
    notices: noticesOf(practised, source.day, {
      professional: singer.intake?.professional ?? false,
      daysToShow: daysToShow(source.terms.dates ?? [], source.day),
    }),
    templates: await templatesOf(tx),
    others: await newestOfOthers(tx, singerId),
    assigned: (await assignmentsOfSinger(tx, singerId)).map(whole),
    practised,
    models: await modelsFor(tx, singerId),
    songs: await chosenTitles(tx, singerId),
  };
}

/** What a plan is worked out from, wherever a page does. `practised`: what was lately. */
export async function planSourceOf({ tx, now }: Context, singer: SingerRow, practised: Entry[]) {
  const { terms, edits } = await planningOf(tx, singer.id);
  const day = dayOf(now);
  return {
    day,
    singer: { id: singer.id, ...askedOf(singer) },
    map: await mapOf(tx, singer.id),
    school: (await schoolOf(tx, singer)).id,
    today: worst([await lastHealth(tx, singer.id), ...saidToday(practised, day)]),
    terms: terms ?? USUAL_TERMS,
    edits,
    own: await ownExercises(tx),
  };
}

/** What a singer's plan is worked out with now, without the coach's edits; null where there is no usable take yet. */
export const planningIn = ({ map, school, terms, own, singer }: Awaited<ReturnType<typeof planSourceOf>>): Planning | null =>
  planning(usualRequest({ ...terms, ...singer, map, school, shelf: [...SHELF, ...own] }));

/** What a plan asks of a singer. */
const askedOf = ({ voiceType, intake }: SingerRow) => ({
  voiceType,
  minor: intake?.minor ?? false,
  age: intake?.age,
  changing: intake?.changing ?? false,
  intake: intake?.answers,
});

export async function savePlan({ tx }: Context, singerId: Id<'singer'>, change: z.infer<typeof PlanInput>) {
  await mustFindSinger(tx, singerId);
  await savePlanning(tx, singerId, change);
}

/** Assign a week: each item with its exercise as it is now, so that later changes don't alter what was assigned. */
export async function assign(ctx: Context, input: z.infer<typeof AssignmentInput>): Promise<Id<'assignment'>> {
  const { tx } = ctx;
  const singer = await mustFindSinger(tx, input.singerId);
  const source = await planSourceOf(ctx, singer, []);
  return assignTo(ctx, { singer, source, p: planningIn(source) }, input);
}

/** @see assign, for whom all that a plan is worked out with is read already; `beside`: items of a week they have, as they were assigned. */
export async function assignTo(
  { tx }: Context,
  { singer, source, p }: { singer: SingerRow; source: Awaited<ReturnType<typeof planSourceOf>>; p: Planning | null },
  { note, startsOn, items: given }: Omit<z.infer<typeof AssignmentInput>, 'singerId'>,
  beside: readonly AssignedItem[] = [],
): Promise<Id<'assignment'>> {
  const shelf = new Map([...SHELF, ...source.own].map((e) => [e.id, e]));
  // The line of a song is a line of the singer's own: of the one whose key was chosen last.
  const [song] = await newestChoices(tx, singer.id, 1);
  const items = given.map((item) => {
    const exercise = shelf.get(item.exerciseId);
    if (!exercise)
      throw new Refusal('incomplete', 'One of the exercises is no longer on the shelf: take it out of the plan and assign again.');
    return { ...item, exercise: exercise.id === SONG_LINE && song ? lineOfSong(exercise, song) : exercise };
  });
  const plan = p && planFrom(p);
  const { terms } = source;
  // The phase that a week was assigned in is the one the singer is in, whatever the map says later.
  if (plan && terms.phaseId === undefined) await savePlanning(tx, singer.id, { terms: inPhase(terms, plan.phases, plan.phase) });
  const stand = plan && { phase: plan.phases[plan.phase].name, grades: plan.grades };
  return insertAssignment(tx, { singerId: singer.id, note, startsOn, items: [...items, ...beside], stand });
}

const LONGEST_TITLE = 60;

/** The shelf's line of a song as a line of a named one, in its key; its own words stay English for what only reads those. */
function lineOfSong(line: Exercise, { song, semitones }: { song: Song; semitones: number }): Exercise {
  const named = { ...line, ofSong: { title: song.title.slice(0, LONGEST_TITLE), ...saidKey(song, semitones) } };
  return { ...named, name: inEnglish(exerciseName(named)), how: inEnglish(exerciseHow(named)) };
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

async function mustFindAssignment(tx: StudioTx, id: Id<'assignment'>) {
  const found = await findAssignment(tx, id);
  if (!found) throw new Refusal('not-found', 'There is no such assignment.');
  return whole(found);
}

/** An assignment's items, to be fitted to another voice. */
export const assignedItems = async ({ tx }: Context, id: Id<'assignment'>) => (await mustFindAssignment(tx, id)).items;

/** An assignment with its singer and map, for the practice sheet. */
export async function viewAssignment({ tx }: Context, id: Id<'assignment'>) {
  const { items, ...assignment } = await mustFindAssignment(tx, id);
  const singer = await mustFindSinger(tx, assignment.singerId);
  return { assignment, singer, map: await mapOf(tx, singer.id), items: items.map((item) => ({ item, exercise: item.exercise })) };
}

export const saveTemplate = ({ tx }: Context, input: z.infer<typeof TemplateInput>) => putTemplate(tx, input);

export const removeTemplate = ({ tx }: Context, id: string) => deleteTemplate(tx, id);
