import type { Id } from '../core/format/id';
import type { LessonInput, LessonChange } from '../contract/inputs';
import { z } from 'zod';
import { anchorsFor, isOver } from '../core/lesson/course';
import { PROTOCOLS } from '../core/lesson/protocols';
import type { Protocol } from '../core/lesson/types';
import {
  deleteProtocol,
  findLesson,
  insertLesson,
  lastAgreed,
  lessonsOfSinger,
  ownProtocols,
  putProtocol,
  saveCourse,
  saveLessonWords,
} from '../data/lessons';
import { voiceToday } from '../core/practice/voice-today';
import { mapOf } from './pooling';
import { lately, practiceOf } from '../data/practice';
import { repertoireOf } from '../data/songs';
import { planSourceOf } from './plans';
import { Refusal } from './refusal';
import { mustFindSinger } from './singers';
import { voiceIn } from './songs';
import type { Context } from './context';

/** Begin a lesson; sent twice it is one. */
export async function startLesson({ tx }: Context, input: z.infer<typeof LessonInput>) {
  await mustFindSinger(tx, input.singerId);
  await insertLesson(tx, input);
  return { id: input.id };
}

/** Save where a lesson stands (the newest revision wins) and the coach's words on it. */
export async function changeLesson({ tx }: Context, id: Id<'lesson'>, { course, ...words }: z.infer<typeof LessonChange>) {
  if (!(await findLesson(tx, id))) throw new Refusal('not-found', 'There is no such lesson.');
  if (course) await saveCourse(tx, id, course, isOver(course));
  if (words.note !== undefined || words.nextTime !== undefined) await saveLessonWords(tx, id, words);
}

/** A lesson with its singer, the present map, what was agreed last time, and all that could be sung in it. @throws Refusal (not-found) when there is none. */
export async function viewLesson(ctx: Context, singerId: Id<'singer'>, id: Id<'lesson'>) {
  const { tx } = ctx;
  const singer = await mustFindSinger(tx, singerId);
  const lesson = await findLesson(tx, id);
  if (!lesson || lesson.singerId !== singer.id) throw new Refusal('not-found', 'There is no such lesson.');
  const practised = await practiceOf(tx, singerId, lately());
  const source = await planSourceOf(ctx, singer, practised);
  return {
    ...source,
    singer: { ...source.singer, name: singer.name, axis: singer.axis },
    told: singer.intake?.health ?? '',
    lesson,
    agreed: await lastAgreed(tx, singerId, lesson.startedAt),
    voiceToday: voiceToday(practised, source.day),
    voice: voiceIn(source.map, singer),
    songs: await repertoireOf(tx, singerId),
  };
}

/** What a singer can be listened to with, and the lessons there have been. */
export async function viewListening({ tx }: Context, singerId: Id<'singer'>) {
  const singer = await mustFindSinger(tx, singerId);
  const map = await mapOf(tx, singerId);
  return {
    singer,
    map,
    voice: anchorsFor(map, singer.voiceType, Boolean(singer.intake?.minor || singer.intake?.changing)),
    protocols: [...PROTOCOLS, ...(await ownProtocols(tx))],
    lessons: await lessonsOfSinger(tx, singerId),
  };
}

export const viewProtocols = ({ tx }: Context) => ownProtocols(tx);
export const saveProtocol = ({ tx }: Context, input: Protocol) => putProtocol(tx, input);
export const removeProtocol = ({ tx }: Context, id: string) => deleteProtocol(tx, id);
