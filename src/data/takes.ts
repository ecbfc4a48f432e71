import type { Id } from '../core/format/id';
import { and, asc, desc, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm';
import { ENGINE } from '../core/engine';
import type { Asked, Colour, Quality, TakeFindings, Task, Trace } from '../core/take/types';
import { StudioTx } from './client';
import { analysis, mark, take } from './schema';

export interface TakeRow {
  id: Id<'take'>;
  singerId: Id<'singer'>;
  task: Task;
  vowel: string;
  colour: Colour | null;
  source: 'microphone' | 'file' | 'simulated';
  sha256: string;
  bytes: number;
  durationS: number;
  sampleRate: number;
  recordedAt: Date;
  /** The lesson it was made in and the step of it, and what it was asked to be. */
  lessonId: Id<'lesson'> | null;
  step: string;
  asked: Asked | null;
  note: string;
  /** When its sound was deleted; null: it is there. */
  soundRemovedAt?: Date | null;
}

export type MarkRow = typeof mark.$inferSelect;

const columns = {
  id: take.id,
  singerId: take.singerId,
  task: sql<Task>`${take.task}`,
  vowel: take.vowel,
  colour: take.colour,
  source: sql<TakeRow['source']>`${take.source}`,
  sha256: take.sha256,
  bytes: take.bytes,
  durationS: take.durationS,
  sampleRate: take.sampleRate,
  recordedAt: take.recordedAt,
  lessonId: take.lessonId,
  step: take.step,
  asked: take.asked,
  note: take.note,
  soundRemovedAt: take.soundRemovedAt,
};

/** The analysis a take is read by: this engine's; of a take whose sound is gone the last there was. */
export const present = and(
  eq(analysis.takeId, take.id),
  sql`${analysis.engine} = case when ${take.soundRemovedAt} is null then ${ENGINE} else (select a.engine from analysis a where a.take_id = ${take.id} order by a.engine = ${ENGINE} desc, a.analysed_at desc limit 1) end`,
);

export async function insertTake({ db, studioId }: StudioTx, row: TakeRow): Promise<void> {
  await db.insert(take).values({ ...row, studioId });
}

export async function findTake({ db, studioId }: StudioTx, id: Id<'take'>): Promise<TakeRow | undefined> {
  const [row] = await db
    .select(columns)
    .from(take)
    .where(and(eq(take.studioId, studioId), eq(take.id, id)));
  return row;
}

export async function deleteTake({ db, studioId }: StudioTx, id: Id<'take'>): Promise<void> {
  await db.delete(take).where(and(eq(take.studioId, studioId), eq(take.id, id)));
}

export async function saveAnalysis(
  { db, studioId }: StudioTx,
  takeId: Id<'take'>,
  engine: string,
  result: { findings?: TakeFindings; trace?: Trace; error?: string },
): Promise<void> {
  const values = { findings: result.findings ?? null, trace: result.trace ?? null, error: result.error ?? null, analysedAt: new Date() };
  await db
    .insert(analysis)
    .values({ studioId, takeId, engine, ...values })
    .onConflictDoUpdate({ target: [analysis.takeId, analysis.engine], set: values });
}

/** This engine's analysis of a take, with its trace for drawing; none while it waits for one. */
export async function analysisOf({ db, studioId }: StudioTx, takeId: Id<'take'>) {
  const [row] = await db
    .select({ engine: analysis.engine, findings: analysis.findings, trace: analysis.trace, error: analysis.error })
    .from(analysis)
    .innerJoin(take, present)
    .where(and(eq(analysis.studioId, studioId), eq(analysis.takeId, takeId)));
  return row;
}

/** What this engine drew of takes, of the `most` newest that have it; newest first. */
export async function tracesOf({ db, studioId }: StudioTx, takeIds: readonly Id<'take'>[], most: number) {
  if (takeIds.length === 0) return [];
  return db
    .select({ takeId: analysis.takeId, trace: analysis.trace })
    .from(analysis)
    .innerJoin(take, present)
    .where(and(eq(analysis.studioId, studioId), inArray(analysis.takeId, [...takeIds]), isNotNull(analysis.trace)))
    .orderBy(desc(take.recordedAt), desc(take.id))
    .limit(most);
}

/** Takes that this engine has not analysed yet, oldest first. */
export async function takesToAnalyse({ db, studioId }: StudioTx): Promise<Id<'take'>[]> {
  const rows = await db
    .select({ id: take.id })
    .from(take)
    .leftJoin(analysis, and(eq(analysis.takeId, take.id), eq(analysis.engine, ENGINE)))
    .where(and(eq(take.studioId, studioId), isNull(analysis.takeId), isNull(take.soundRemovedAt)))
    .orderBy(asc(take.recordedAt));
  return rows.map((r) => r.id);
}

/** All takes of a singer, newest first, each with this engine's findings (null while waiting). */
export async function takesOfSinger({ db, studioId }: StudioTx, singerId: Id<'singer'>) {
  return db
    .select({ ...columns, findings: analysis.findings, error: analysis.error })
    .from(take)
    .leftJoin(analysis, present)
    .where(and(eq(take.studioId, studioId), eq(take.singerId, singerId)))
    .orderBy(desc(take.recordedAt), take.id);
}

/** A singer's takes for a list, newest first: what this engine made of each, without the whole of its findings. */
export async function takeLinesOfSinger({ db, studioId }: StudioTx, singerId: Id<'singer'>) {
  return db
    .select({
      ...columns,
      quality: sql<Quality | null>`${analysis.findings}->'quality'`,
      changes: sql<number>`coalesce(jsonb_array_length(${analysis.findings}->'events'), 0)`,
      error: analysis.error,
      analysed: sql<boolean>`${analysis.takeId} is not null`,
    })
    .from(take)
    .leftJoin(analysis, present)
    .where(and(eq(take.studioId, studioId), eq(take.singerId, singerId)))
    .orderBy(desc(take.recordedAt), take.id);
}

export async function saveTakeNote({ db, studioId }: StudioTx, id: Id<'take'>, note: string): Promise<void> {
  await db
    .update(take)
    .set({ note })
    .where(and(eq(take.studioId, studioId), eq(take.id, id)));
}

/** Bytes of sound the studio keeps. */
export async function storedBytes({ db, studioId }: StudioTx): Promise<number> {
  const [row] = await db
    .select({ bytes: sql<number>`coalesce(sum(${take.bytes}), 0)::float8` })
    .from(take)
    .where(and(eq(take.studioId, studioId), isNull(take.soundRemovedAt)));
  return row.bytes;
}

/** The newest take of each colour a singer was asked for, for calibration. */
export async function colourTakes(
  { db, studioId }: StudioTx,
  singerId: Id<'singer'>,
): Promise<{ colour: Colour; id: Id<'take'>; bytes: number }[]> {
  const rows = await db
    .selectDistinctOn([take.colour], { colour: take.colour, id: take.id, bytes: take.bytes })
    .from(take)
    .where(and(eq(take.studioId, studioId), eq(take.singerId, singerId), isNotNull(take.colour), isNull(take.soundRemovedAt)))
    .orderBy(take.colour, desc(take.recordedAt));
  return rows.map(({ colour, ...of }) => ({ colour: colour!, ...of }));
}

export async function marksOfSinger({ db, studioId }: StudioTx, singerId: Id<'singer'>): Promise<MarkRow[]> {
  const rows = await db
    .select({ mark })
    .from(mark)
    .innerJoin(take, eq(take.id, mark.takeId))
    .where(and(eq(mark.studioId, studioId), eq(take.singerId, singerId)))
    .orderBy(asc(mark.timeS));
  return rows.map((r) => r.mark);
}

export async function marksOfTake({ db, studioId }: StudioTx, takeId: Id<'take'>): Promise<MarkRow[]> {
  return db
    .select()
    .from(mark)
    .where(and(eq(mark.studioId, studioId), eq(mark.takeId, takeId)))
    .orderBy(asc(mark.timeS));
}

/** Set a mark of a take. Whether it could be: its id may be another take's. */
export async function putMark({ db, studioId }: StudioTx, row: Omit<MarkRow, 'studioId' | 'createdAt'>): Promise<boolean> {
  const put = await db
    .insert(mark)
    .values({ ...row, studioId })
    .onConflictDoUpdate({
      target: mark.id,
      set: { timeS: row.timeS, midi: row.midi, direction: row.direction, verdict: row.verdict, by: row.by },
      setWhere: eq(mark.takeId, row.takeId),
    })
    .returning({ id: mark.id });
  return put.length > 0;
}

export async function deleteMark({ db, studioId }: StudioTx, takeId: Id<'take'>, id: Id<'mark'>): Promise<void> {
  await db.delete(mark).where(and(eq(mark.studioId, studioId), eq(mark.takeId, takeId), eq(mark.id, id)));
}
