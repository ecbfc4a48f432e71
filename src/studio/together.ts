import { octavesUnder, sharedRange, togetherSets } from '../core/plan/together';
import { ruleForToday } from '../core/plan/safety';
import { lately, practiceOf } from '../data/practice';
import { findSinger, singerNames } from '../data/singers';
import type { Context } from './context';
import { planningIn, planSourceOf } from './plans';

/** More don't fit a room, and their plans a moment. */
export const MOST_TOGETHER = 60;

/**
 * The studio's present singers, and of those that were asked for what they may sing at once: the notes all of them have, sets in keys for
 * all, who sings an octave under what is written, who was not heard yet (no key is known of them), and who had better rest today. The last
 * two are left out.
 */
export async function viewTogether(ctx: Context, asked: readonly string[]) {
  const { tx } = ctx;
  const present = await singerNames(tx);
  const chosen = present.filter((s) => asked.includes(s.id)).slice(0, MOST_TOGETHER);
  const unheard: string[] = [];
  const resting: string[] = [];
  const voices = [];
  for (const { id } of chosen) {
    const singer = (await findSinger(tx, id))!;
    const source = await planSourceOf(ctx, singer, await practiceOf(tx, id, lately()));
    const p = planningIn(source);
    if (!p) unheard.push(singer.name);
    else if (ruleForToday(source.today)) resting.push(singer.name);
    else voices.push({ name: singer.name, p });
  }
  const plannings = voices.map(({ p }) => p);
  const under = octavesUnder(plannings.map((p) => p.voiceType));
  return {
    singers: present,
    chosen: chosen.map((s) => s.id),
    unheard,
    resting,
    /** Whose clef it is written in. */
    voice: plannings.find((_, i) => under[i] === 0)?.voiceType ?? null,
    octaveUnder: voices.filter((_, i) => under[i] > 0).map(({ name }) => name),
    range: sharedRange(plannings),
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
