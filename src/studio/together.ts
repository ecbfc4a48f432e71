import type { Id } from '../core/format/id';
import type { z } from 'zod';
import type { TogetherInput } from '../contract/inputs';
import { dayLater } from '../core/plan/days';
import { MOST_TOGETHER, octavesUnder, setInVoice, sharedRange, togetherSets } from '../core/plan/together';
import { LONGEST_NOTE, MOST_ITEMS } from '../core/format/plan';
import { DAYS_A_WEEK } from '../core/plan/types';
import { said } from '../core/words/said';
import { assignmentsOfSinger } from '../data/assignments';
import { ruleForToday } from '../core/plan/safety';
import { lately, practiceOf } from '../data/practice';
import { findSinger, singerNames } from '../data/singers';
import type { Context } from './context';
import { dayOf } from './day';
import { assignTo, planningIn, planSourceOf, whole } from './plans';
import { Refusal } from './refusal';

/**
 * The studio's present singers, and of those that were asked for what they may sing at once: the notes all of them have, sets in keys for
 * all, who sings an octave under what is written, who was not heard yet (no key is known of them), and who had better rest today. The last
 * two are left out.
 */
export async function viewTogether(ctx: Context, asked: readonly string[]) {
  const present = await singerNames(ctx.tx);
  const chosen = present.filter((s) => asked.includes(s.id)).slice(0, MOST_TOGETHER);
  const { voices, unheard, resting } = await voicesOf(
    ctx,
    chosen.map((s) => s.id),
  );
  const plannings = voices.map(({ p }) => p);
  return {
    singers: present,
    chosen: chosen.map((s) => s.id),
    unheard,
    resting,
    /** Whose clef it is written in. */
    voice: voices.find(({ under }) => under === 0)?.p.voiceType ?? null,
    octaveUnder: voices.filter(({ under }) => under > 0).map(({ singer }) => singer.name),
    range: sharedRange(plannings),
    day: dayOf(ctx.now),
    sets: togetherSets(plannings).map(({ items, ...set }) => ({
      ...set,
      items: items.map(({ exerciseId, keys, sound, tempo, minutes }) => ({
        exercise: plannings[0].find(exerciseId)!,
        keys,
        sound,
        tempo,
        minutes,
      })),
    })),
  };
}

/**
 * Who of some singers may sing today, each with what a plan is worked out from and how far under what is written they sing; who was not
 * heard, and who rests, by name.
 */
async function voicesOf(ctx: Context, ids: readonly Id<'singer'>[]) {
  const unheard: string[] = [];
  const resting: string[] = [];
  const heard = [];
  for (const id of ids) {
    const singer = (await findSinger(ctx.tx, id))!;
    const source = await planSourceOf(ctx, singer, await practiceOf(ctx.tx, id, lately()));
    const p = planningIn(source);
    if (!p) unheard.push(singer.name);
    else if (ruleForToday(source.today)) resting.push(singer.name);
    else heard.push({ singer, source, p });
  }
  const under = octavesUnder(heard.map(({ p }) => p.voiceType));
  return { voices: heard.map((voice, i) => ({ ...voice, under: under[i] })), unheard, resting };
}

/**
 * Give a set to everybody who may sing it: to each in the octave they sing in, as a week of theirs, beside the exercises of the week they
 * are in (those it has already stay as they are) or instead of it. All or none.
 *
 * @returns who has it now, and who was left out because they were not heard or rest today, by name
 * @throws Refusal (conflict: nothing of it suits all of them, or somebody's week is full)
 */
export async function assignTogether(
  ctx: Context,
  { singerIds, set: id, startsOn, note, beside }: z.infer<typeof TogetherInput>,
): Promise<{ given: string[]; unheard: string[]; resting: string[] }> {
  const asked = (await singerNames(ctx.tx)).map((s) => s.id).filter((of) => singerIds.includes(of));
  const { voices, unheard, resting } = await voicesOf(ctx, asked);
  const set = togetherSets(voices.map(({ p }) => p)).find((of) => of.id === id);
  if (!set) throw new Refusal('conflict', 'Nothing of this set suits all of them now: open the page again and choose another.');
  for (const voice of voices) {
    const { singer, p, under } = voice;
    const week = beside ? await weekNow(ctx, singer.id, startsOn) : null;
    const has = week?.items ?? [];
    const items = setInVoice(set, p, under).filter((it) => !has.some((of) => of.exerciseId === it.exerciseId));
    if (items.length === 0) continue;
    if (items.length + has.length > MOST_ITEMS)
      throw new Refusal('conflict', said('The week of {name} is full: give them this instead of it.', { name: { own: singer.name } }));
    const says = [note, week?.note].filter(Boolean).join('\n').slice(0, LONGEST_NOTE);
    await assignTo(ctx, voice, { items, startsOn: week?.startsOn ?? startsOn, note: says }, has);
  }
  return { given: voices.map(({ singer }) => singer.name), unheard, resting };
}

/** The week a singer is in on a day, as it was assigned last; null where that one is over. */
async function weekNow({ tx }: Context, singerId: Id<'singer'>, day: string) {
  const [newest] = await assignmentsOfSinger(tx, singerId);
  const week = newest && whole(newest);
  return week && day < dayLater(week.startsOn, DAYS_A_WEEK) ? week : null;
}
