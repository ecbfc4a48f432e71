import { z } from 'zod';
import { anchorsFor, isOver } from '../core/lesson/course';
import { PROTOCOLS } from '../core/lesson/protocols';
import { CourseShape } from '../core/format/lesson';
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
import { mapOf } from '../data/pooling';
import { lately, practiceOf } from '../data/practice';
import { repertoireOf } from '../data/songs';
import { planSourceOf } from './plans';
import { Problem } from './problem';
import { mustFindSinger } from './singers';
import { voiceIn } from './songs';
import { inPresentStudio } from './studio';

export const LessonInput = z.object({ id: z.uuid(), singerId: z.uuid(), name: z.string().trim().min(1).max(80), course: CourseShape });
export const LessonChange = z.object({
  course: CourseShape.optional(),
  note: z.string().trim().max(4000).optional(),
  nextTime: z.string().trim().max(2000).optional(),
});

/** Begin a lesson; sent twice it is one. */
export const startLesson = (input: z.infer<typeof LessonInput>) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, input.singerId);
    await insertLesson(tx, input);
    return { id: input.id };
  });

/** Save where a lesson stands (the newest revision wins) and the coach's words on it. */
export const changeLesson = (id: string, { course, ...words }: z.infer<typeof LessonChange>) =>
  inPresentStudio(async (tx) => {
    if (!(await findLesson(tx, id))) throw new Problem('There is no such lesson.', 404);
    if (course) await saveCourse(tx, id, course, isOver(course));
    if (words.note !== undefined || words.nextTime !== undefined) await saveLessonWords(tx, id, words);
  });

/** A lesson with its singer, the present map, what was agreed last time, and all that could be sung in it. @throws Problem (404) when there is none. */
export const viewLesson = (singerId: string, id: string) =>
  inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, singerId);
    const lesson = z.uuid().safeParse(id).success ? await findLesson(tx, id) : undefined;
    if (!lesson || lesson.singerId !== singer.id) throw new Problem('There is no such lesson.', 404);
    const source = await planSourceOf(tx, singer, await practiceOf(tx, singerId, lately()));
    return {
      ...source,
      singer: { ...source.singer, name: singer.name, axis: singer.axis },
      told: singer.intake?.health ?? '',
      lesson,
      agreed: await lastAgreed(tx, singerId, lesson.startedAt),
      voice: voiceIn(source.map, singer),
      songs: await repertoireOf(tx, singerId),
    };
  });

/** What a singer can be listened to with, and the lessons there have been. */
export const viewListening = (singerId: string) =>
  inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, singerId);
    const map = await mapOf(tx, singerId);
    return {
      singer,
      map,
      voice: anchorsFor(map, singer.voiceType, Boolean(singer.intake?.minor || singer.intake?.changing)),
      protocols: [...PROTOCOLS, ...(await ownProtocols(tx))],
      lessons: await lessonsOfSinger(tx, singerId),
    };
  });

export const viewProtocols = () => inPresentStudio(ownProtocols);
export const saveProtocol = (input: Protocol) => inPresentStudio((tx) => putProtocol(tx, input));
export const removeProtocol = (id: string) => inPresentStudio((tx) => deleteProtocol(tx, id));
