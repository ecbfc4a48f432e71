import { z } from 'zod';
import { EntryShape } from '../core/format/practice';
import { chaptersOf } from '../core/practice/chapters';
import { daysOf } from '../core/practice/log';
import { evidenceFor, mapOf } from '../data/pooling';
import { addPractice, answerPractice, lately, newestPractice, practiceOf } from '../data/practice';
import { assignmentsOfSinger } from '../data/assignments';
import { modelsFor } from '../data/models';
import { studioSettings } from '../data/studios';
import { dayOf } from './day';
import { asSinger } from './links';
import { whole } from './plans';
import { measuresByDay } from '../core/practice/measures';
import type { VoiceMap } from '../core/map/types';
import { Problem } from './problem';
import { mustFindSinger } from './singers';
import { receiveTake, TakeMeta } from './takes';
import { inPresentStudio } from './studio';

export const EntriesInput = z.object({ entries: z.array(EntryShape).max(500) });

/** A singer's own page: this week's work, the voice it is for, and what was practised. */
export const viewPractice = (token: string) =>
  asSinger(token, async (tx, singerId) => {
    const singer = await mustFindSinger(tx, singerId);
    const [newest] = await assignmentsOfSinger(tx, singerId);
    const map = await mapOf(tx, singerId);
    return {
      singer: {
        id: singer.id,
        name: singer.name,
        voiceType: singer.voiceType,
        professional: singer.intake?.professional ?? false,
        consent: singer.intake?.consent ?? 'none',
      },
      keepMonths: (await studioSettings(tx)).keepMonths,
      map: { ...map, levels: [], blend: [], passaggi: map.passaggi.map((p) => ({ ...p, votes: [] })) },
      assignment: newest ? whole(newest) : null,
      entries: await practiceOf(tx, singerId, lately()),
      models: await modelsFor(tx, singerId, newest ? newest.items.map((it) => it.exerciseId) : []),
    };
  });

/** Add to a singer's log what was practised, perhaps hours ago without a network; sent twice it is there once. */
export const addEntries = (token: string, { entries }: z.infer<typeof EntriesInput>) =>
  asSinger(token, async (tx, singerId) => {
    const mine = new Set((await assignmentsOfSinger(tx, singerId)).map((a) => a.id));
    await addPractice(
      tx,
      singerId,
      entries.map((e) => ({ ...e, assignmentId: e.assignmentId && mine.has(e.assignmentId) ? e.assignmentId : null })),
    );
  });

export const AnswerInput = z.object({ answer: z.string().trim().max(2000) });

/** Answer a singer's own words; the phone shows it. @throws Problem (404) where there is no such line. */
export const answer = (entryId: string, { answer }: z.infer<typeof AnswerInput>) =>
  inPresentStudio(async (tx) => {
    if (!z.uuid().safeParse(entryId).success || !(await answerPractice(tx, entryId, answer)))
      throw new Problem('There is no such line in any log of this studio.', 404);
  });

/** A recording made on the singer's page. */
export const receivePracticeTake = (token: string, meta: TakeMeta, body: AsyncIterable<Uint8Array> | null, bytes: number | null) =>
  receiveTake(meta, body, bytes, (work) => asSinger(token, (tx, singerId) => work(tx, { ...meta, singerId, lessonId: null })));

/** The change a voice is followed by: the one the map is surest of. */
const mainChange = ({ passaggi }: VoiceMap): number | null => [...passaggi].sort((a, b) => b.confidence - a.confidence)[0]?.midi ?? null;

/** What was practised and what the voice measured over time, for the coach. */
export const viewLog = (singerId: string) =>
  inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, singerId);
    const map = await mapOf(tx, singerId);
    const all = await practiceOf(tx, singerId);
    const takes = (await evidenceFor(tx, singerId)).map((t) => ({ ...t, day: dayOf(new Date(t.recordedAt!)) }));
    const assigned = (await assignmentsOfSinger(tx, singerId)).map(whole);
    const sirens = new Map(takes.filter((t) => t.findings.task === 'siren' && t.findings.quality.usable).map((t) => [t.day, t.takeId]));
    return {
      /** One siren of each day, to be heard beside another day's. */
      sirens: Object.fromEntries(sirens),
      measured: measuresByDay(takes, mainChange(map)),
      singer: { id: singer.id, name: singer.name },
      now: Date.now(),
      days: daysOf(all),
      entries: all.filter((e) => e.day >= lately()),
      assigned,
      chapters: chaptersOf(assigned),
    };
  });

/** When anything was last practised, for pages that want to know at once. */
export const news = () => inPresentStudio(async (tx) => ({ at: await newestPractice(tx) }));
