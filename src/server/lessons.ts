import { z } from 'zod';
import { anchorsFor, isOver } from '../core/lesson/course';
import { PROTOCOLS } from '../core/lesson/protocols';
import type { Course, LessonStep, Protocol } from '../core/lesson/types';
import { TASKS } from '../core/take/types';
import {
  deleteProtocol,
  findLesson,
  insertLesson,
  lessonsOfSinger,
  ownProtocols,
  putProtocol,
  saveCourse,
  saveLessonNote,
} from '../data/lessons';
import { mapOf } from '../data/pooling';
import { Problem } from './problem';
import { mustFindSinger } from './singers';
import { inPresentStudio } from './studio';

const Midi = z.number().int().min(12).max(115);

const Step: z.ZodType<LessonStep> = z.object({
  id: z.string().min(1).max(60),
  name: z.string().trim().min(1, 'Give the step a name.').max(80),
  how: z.string().trim().max(400),
  task: z.enum(TASKS),
  vowel: z.string().max(20),
  degrees: z.array(z.number().int().min(1).max(22)).min(1).max(40).nullable(),
  slide: z.boolean().optional(),
  keys: z
    .object({
      from: z.enum(['low', 'change', 'high']),
      semitones: z.number().int().min(-36).max(36),
      step: z.number().int().min(-12).max(12),
      until: z.union([z.literal('stop'), z.number().int().min(1).max(40)]),
    })
    .nullable(),
  times: z.number().int().min(1).max(20),
  colours: z.boolean().optional(),
  tempo: z.number().min(30).max(240),
  testsRange: z.boolean(),
  optional: z.boolean().optional(),
});

const Health = z.object({ hoarse: z.boolean(), ill: z.boolean(), pain: z.boolean(), note: z.string().trim().max(1000) });

const CourseInput: z.ZodType<Course> = z.object({
  protocolId: z.string().max(60),
  steps: z.array(Step).min(1, 'A lesson needs at least one step.').max(60),
  health: Health.nullable(),
  voice: z.object({ low: Midi, change: Midi, high: Midi }),
  at: z.number().int().min(0).max(60),
  count: z.number().int().min(0).max(1000),
  tonicMidi: Midi.nullable(),
  held: z.boolean(),
  confirming: z.boolean(),
  vowel: z.string().max(20).nullable(),
  skipped: z.record(z.string(), z.string().max(400)),
  revision: z.number().int().min(0).max(1e6),
});

export const LessonInput = z.object({ id: z.uuid(), singerId: z.uuid(), name: z.string().trim().min(1).max(80), course: CourseInput });
export const LessonChange = z.object({ course: CourseInput.optional(), note: z.string().trim().max(4000).optional() });

/** Begin a lesson; sent twice it is one. */
export const startLesson = (input: z.infer<typeof LessonInput>) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, input.singerId);
    await insertLesson(tx, input);
    return { id: input.id };
  });

/** Save where a lesson stands (the newest revision wins) and the coach's note on it. */
export const changeLesson = (id: string, { course, note }: z.infer<typeof LessonChange>) =>
  inPresentStudio(async (tx) => {
    if (!(await findLesson(tx, id))) throw new Problem('There is no such lesson.', 404);
    if (course) await saveCourse(tx, id, course, isOver(course));
    if (note !== undefined) await saveLessonNote(tx, id, note);
  });

/** A lesson with its singer and the present map. @throws Problem (404) when there is none. */
export const viewLesson = (singerId: string, id: string) =>
  inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, singerId);
    const lesson = z.uuid().safeParse(id).success ? await findLesson(tx, id) : undefined;
    if (!lesson || lesson.singerId !== singer.id) throw new Problem('There is no such lesson.', 404);
    return { singer, lesson, map: await mapOf(tx, singerId) };
  });

/** What a singer can be listened to with, and the lessons there have been. */
export const viewListening = (singerId: string) =>
  inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, singerId);
    const map = await mapOf(tx, singerId);
    return {
      singer,
      map,
      voice: anchorsFor(map, singer.voiceType),
      protocols: [...PROTOCOLS, ...(await ownProtocols(tx))],
      lessons: await lessonsOfSinger(tx, singerId),
    };
  });

export const ProtocolInput: z.ZodType<Protocol> = z.object({
  id: z.uuid(),
  name: z.string().trim().min(1, 'Give the lesson a name.').max(80),
  purpose: z.string().trim().max(200),
  asksHealth: z.boolean(),
  steps: z.array(Step).min(1, 'A lesson needs at least one step.').max(60),
});

export const viewProtocols = () => inPresentStudio(ownProtocols);
export const saveProtocol = (input: Protocol) => inPresentStudio((tx) => putProtocol(tx, input));
export const removeProtocol = (id: string) => inPresentStudio((tx) => deleteProtocol(tx, id));
