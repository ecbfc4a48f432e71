import type { Id } from '../core/format/id';
import { and, desc, eq, lt, ne, sql } from 'drizzle-orm';
import type { Course, HealthAnswers, Protocol } from '../core/lesson/types';
import { StudioTx } from './client';
import { lesson, protocol, take } from './schema';

export type LessonRow = typeof lesson.$inferSelect;

/** Begin a lesson; a start sent twice is one lesson. */
export async function insertLesson(
  { db, studioId }: StudioTx,
  row: { id: Id<'lesson'>; singerId: Id<'singer'>; name: string; course: Course },
): Promise<void> {
  await db
    .insert(lesson)
    .values({ ...row, studioId })
    .onConflictDoNothing();
}

export async function findLesson({ db, studioId }: StudioTx, id: Id<'lesson'>): Promise<LessonRow | undefined> {
  const [row] = await db
    .select()
    .from(lesson)
    .where(and(eq(lesson.studioId, studioId), eq(lesson.id, id)));
  return row;
}

/** Save where a lesson stands, unless something newer is stored already. */
export async function saveCourse({ db, studioId }: StudioTx, id: Id<'lesson'>, course: Course, over: boolean): Promise<void> {
  await db
    .update(lesson)
    .set({ course, endedAt: over ? sql`coalesce(${lesson.endedAt}, now())` : null })
    .where(and(eq(lesson.studioId, studioId), eq(lesson.id, id), sql`(${lesson.course}->>'revision')::int < ${course.revision}`));
}

/** Save the coach's words on a lesson. */
export async function saveLessonWords(
  { db, studioId }: StudioTx,
  id: Id<'lesson'>,
  words: { note?: string; nextTime?: string },
): Promise<void> {
  await db
    .update(lesson)
    .set(words)
    .where(and(eq(lesson.studioId, studioId), eq(lesson.id, id)));
}

/** A singer's lessons, newest first, with how many takes each holds. */
export async function lessonsOfSinger({ db, studioId }: StudioTx, singerId: Id<'singer'>) {
  return db
    .select({
      id: lesson.id,
      name: lesson.name,
      note: lesson.note,
      nextTime: lesson.nextTime,
      startedAt: lesson.startedAt,
      endedAt: lesson.endedAt,
      takes: sql<number>`count(${take.id})::int`,
    })
    .from(lesson)
    .leftJoin(take, eq(take.lessonId, lesson.id))
    .where(and(eq(lesson.studioId, studioId), eq(lesson.singerId, singerId)))
    .groupBy(lesson.id)
    .orderBy(desc(lesson.startedAt));
}

/** What was agreed at the end of the last lesson before another; null where nothing was. */
export async function lastAgreed(
  { db, studioId }: StudioTx,
  singerId: Id<'singer'>,
  before: Date,
): Promise<{ nextTime: string; on: Date } | null> {
  const [row] = await db
    .select({ nextTime: lesson.nextTime, on: lesson.startedAt })
    .from(lesson)
    .where(and(eq(lesson.studioId, studioId), eq(lesson.singerId, singerId), ne(lesson.nextTime, ''), lt(lesson.startedAt, before)))
    .orderBy(desc(lesson.startedAt))
    .limit(1);
  return row ?? null;
}

const protocolColumns = {
  id: protocol.id,
  name: protocol.name,
  purpose: protocol.purpose,
  asksHealth: protocol.asksHealth,
  steps: protocol.steps,
};

export async function ownProtocols({ db, studioId }: StudioTx): Promise<Protocol[]> {
  return db.select(protocolColumns).from(protocol).where(eq(protocol.studioId, studioId)).orderBy(protocol.name);
}

export async function putProtocol({ db, studioId }: StudioTx, { id, ...values }: Protocol): Promise<void> {
  await db
    .insert(protocol)
    .values({ id, studioId, ...values })
    .onConflictDoUpdate({ target: protocol.id, set: values });
}

export async function deleteProtocol({ db, studioId }: StudioTx, id: string): Promise<void> {
  await db.delete(protocol).where(and(eq(protocol.studioId, studioId), eq(protocol.id, id)));
}

/** What a singer answered about health in the last lesson of the last day; null when none was held or asked. */
export async function lastHealth({ db, studioId }: StudioTx, singerId: Id<'singer'>): Promise<HealthAnswers | null> {
  const [row] = await db
    .select({ course: lesson.course })
    .from(lesson)
    .where(and(eq(lesson.studioId, studioId), eq(lesson.singerId, singerId), sql`${lesson.startedAt} > now() - interval '1 day'`))
    .orderBy(desc(lesson.startedAt))
    .limit(1);
  return row?.course.health ?? null;
}
