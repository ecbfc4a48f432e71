import type { Id } from '../core/format/id';
import type { EntriesInput, AnswerInput } from '../contract/inputs';
import { z } from 'zod';
import { chaptersOf } from '../core/practice/chapters';
import { daysOf } from '../core/practice/log';
import { shownTrial } from '../core/practice/trial';
import { isTrial } from '../core/practice/types';
import { occasionSets } from '../core/plan/occasions';
import type { PlanItem } from '../core/plan/types';
import { daysSung, mapOf } from './pooling';
import { addPractice, answerPractice, lately, practiceOf } from '../data/practice';
import { assignmentsOfSinger } from '../data/assignments';
import { modelsFor } from '../data/models';
import { spokenOf } from '../data/spoken';
import { newestChoices } from '../data/songs';
import { planningOf } from '../data/plans';
import { studioSettings } from '../data/studios';
import { planningIn, planSourceOf, whole as complete } from './plans';
import { mainChange } from '../core/practice/measures';
import { Refusal } from './refusal';
import { voiceIn } from './songs';
import { mustFindSinger } from './singers';
import type { Context } from './context';

/** So many songs are on the phone, those decided last. */
const MOST_SONGS = 6;

/** A singer's own page: this week's work, the voice it is for, and what was practised. */
export async function viewPractice(ctx: Context, singerId: Id<'singer'>) {
  const { tx } = ctx;
  const singer = await mustFindSinger(tx, singerId);
  const [newest] = await assignmentsOfSinger(tx, singerId);
  const entries = await practiceOf(tx, singerId, lately());
  const source = await planSourceOf(ctx, singer, entries);
  const { map, terms, singer: asked } = source;
  const p = planningIn(source);
  const { trial } = terms;
  // The order of a trial that takes longer than the phone looks back is told by all its days.
  const before =
    trial && trial.begun < lately() ? (await practiceOf(tx, singerId, trial.begun)).filter((e) => isTrial(e) && e.day < lately()) : [];
  const songs = await newestChoices(tx, singerId, MOST_SONGS);
  const whole = (item: PlanItem) => ({ ...item, exercise: p!.find(item.exerciseId)! });
  return {
    singer: {
      id: singer.id,
      name: singer.name,
      voiceType: singer.voiceType,
      professional: singer.intake?.professional ?? false,
      consent: singer.intake?.consent ?? 'none',
    },
    keepMonths: (await studioSettings(tx)).keepMonths,
    map: {
      ...map,
      levels: [],
      blend: [],
      ceiling: map.ceiling && { ...map.ceiling, passes: [] },
      passaggi: map.passaggi.map((p) => ({ ...p, votes: [] })),
    },
    assignment: newest ? complete(newest) : null,
    entries: [...before, ...entries],
    /** Sets for what a day brings, in this voice; and what practice has to bend to. */
    sets: p ? occasionSets(p).map(({ items, ...set }) => ({ ...set, items: items.map(whole) })) : [],
    dates: terms.dates ?? [],
    beltMinutes: terms.beltMinutes ?? null,
    trial: trial ?? null,
    /** Nothing is asked of the top. */
    spared: p?.narrow ?? false,
    minor: p?.minor ?? false,
    older: asked.age === 'older',
    /** Songs in the keys that were chosen, and the voice they are laid on. */
    songs,
    voice: voiceIn(map, singer),
    models: await modelsFor(tx, singerId, { exercises: newest?.items.map((it) => it.exerciseId), songs: songs.map((s) => s.id) }),
  };
}

/** Add to a singer's log what was practised, perhaps hours ago without a network; sent twice it is there once. */
export async function addEntries({ tx }: Context, singerId: Id<'singer'>, { entries }: z.infer<typeof EntriesInput>) {
  const mine = new Set<string>((await assignmentsOfSinger(tx, singerId)).map((a) => a.id));
  await addPractice(
    tx,
    singerId,
    entries.map((e) => ({ ...e, assignmentId: e.assignmentId && mine.has(e.assignmentId) ? e.assignmentId : null })),
  );
}

/** The coach's word on a line of a log: an answer, which the phone shows, or that what nobody heard went as meant. @throws Refusal (not-found) where there is no such line. */
export async function answer({ tx }: Context, entryId: Id<'entry'>, word: z.infer<typeof AnswerInput>) {
  if (!(await answerPractice(tx, entryId, word))) throw new Refusal('not-found', 'There is no such line in any log of this studio.');
}

/** What was practised and what the voice measured over time, for the coach. */
export async function viewLog({ tx, now }: Context, singerId: Id<'singer'>) {
  const singer = await mustFindSinger(tx, singerId);
  const map = await mapOf(tx, singerId);
  const all = await practiceOf(tx, singerId);
  const { measured, sirens } = await daysSung(tx, singerId, mainChange(map)?.midi ?? null);
  const assigned = (await assignmentsOfSinger(tx, singerId)).map(complete);
  const { terms } = await planningOf(tx, singerId);
  return {
    /** One siren of each day, to be heard beside another day's. */
    sirens,
    measured,
    singer: { id: singer.id, name: singer.name },
    now: now.getTime(),
    days: daysOf(all),
    entries: all.filter((e) => e.day >= lately()),
    /** Of which lines what was spoken is here to be heard. */
    spoken: (await spokenOf(tx, singerId)).map(({ id }) => id),
    assigned,
    chapters: chaptersOf(assigned),
    beltLimit: terms?.beltMinutes ?? null,
    trial: shownTrial(all, terms?.trial?.id),
  };
}
