import { and, desc, eq, sql } from 'drizzle-orm';
import type { VoiceTypeId } from '../core/plan/voice-types';
import type { TimbreAxis } from '../core/take/timbre';
import { StudioTx } from './client';
import { singer, take } from './schema';

export interface SingerRow {
  id: string;
  name: string;
  part: string;
  voiceType: VoiceTypeId;
  note: string;
}

const columns = {
  id: singer.id,
  name: singer.name,
  part: singer.part,
  voiceType: sql<VoiceTypeId>`${singer.voiceType}`,
  note: singer.note,
};

/** All singers by name, with when they were last heard and how many takes they have. */
export async function listSingers({ db, studioId }: StudioTx) {
  return db
    .select({
      ...columns,
      takes: sql<number>`count(${take.id})::int`,
      lastHeard: sql<Date | null>`max(${take.recordedAt})`.mapWith((v) => (v ? new Date(v) : null)),
    })
    .from(singer)
    .leftJoin(take, eq(take.singerId, singer.id))
    .where(eq(singer.studioId, studioId))
    .groupBy(singer.id)
    .orderBy(desc(sql`max(${take.recordedAt})`), singer.name);
}

export async function findSinger({ db, studioId }: StudioTx, id: string): Promise<SingerRow | undefined> {
  const [row] = await db
    .select(columns)
    .from(singer)
    .where(and(eq(singer.studioId, studioId), eq(singer.id, id)));
  return row;
}

/** The singer's own timbre axis; undefined before a calibration. */
export async function axisOf({ db, studioId }: StudioTx, id: string): Promise<TimbreAxis | undefined> {
  const [row] = await db
    .select({ axis: singer.axis })
    .from(singer)
    .where(and(eq(singer.studioId, studioId), eq(singer.id, id)));
  return row?.axis ?? undefined;
}

export async function saveAxis({ db, studioId }: StudioTx, id: string, axis: TimbreAxis): Promise<void> {
  await db
    .update(singer)
    .set({ axis })
    .where(and(eq(singer.studioId, studioId), eq(singer.id, id)));
}

export async function insertSinger({ db, studioId }: StudioTx, values: Omit<SingerRow, 'id'>): Promise<string> {
  const [row] = await db
    .insert(singer)
    .values({ ...values, studioId })
    .returning({ id: singer.id });
  return row.id;
}
