import { and, eq, sql } from 'drizzle-orm';
import { ENGINE } from '../core/engine';
import type { HealthAnswers } from '../core/lesson/types';
import type { SchoolId } from '../core/map/schools';
import type { VoiceTypeId } from '../core/plan/voice-types';
import type { TimbreAxis } from '../core/take/timbre';
import { StudioTx } from './client';
import type { Before, Done } from '../core/practice/types';
import { assignment, Intake, lesson, practice, singer, take, voiceMap } from './schema';

export interface SingerRow {
  id: string;
  name: string;
  part: string;
  voiceType: VoiceTypeId;
  note: string;
  /** Where messages to them go; null: handed over by the coach. */
  email: string | null;
  intake: Intake | null;
  /** Taught by another school than the studio's. */
  school: SchoolId | null;
  archivedAt: Date | null;
  /** The singer's own timbre axis, from the newest calibration. */
  axis: TimbreAxis | null;
}

/** What the coach fills in. */
export type SingerFields = Omit<SingerRow, 'id' | 'archivedAt' | 'axis'>;

const columns = {
  id: singer.id,
  name: singer.name,
  part: singer.part,
  voiceType: sql<VoiceTypeId>`${singer.voiceType}`,
  note: singer.note,
  email: singer.email,
  intake: singer.intake,
  school: singer.school,
  archivedAt: singer.archivedAt,
  axis: singer.axis,
};

/** All singers, the last heard first, with how many takes they have and what their kept maps say (null: never pooled). */
export async function listSingers({ db, studioId }: StudioTx) {
  const heard = db
    .select({ singerId: take.singerId, takes: sql<number>`count(*)::int`.as('takes'), last: sql<Date>`max(${take.recordedAt})`.as('last') })
    .from(take)
    .where(eq(take.studioId, studioId))
    .groupBy(take.singerId)
    .as('heard');
  return db
    .select({
      ...columns,
      takes: sql<number>`coalesce(${heard.takes}, 0)`.mapWith(Number),
      lastHeard: sql<Date | null>`${heard.last}`.mapWith((v) => (v ? new Date(v) : null)),
      summary: voiceMap.summary,
      /** Whether the summary is of the present evidence and engine. */
      fresh: sql<boolean>`coalesce(${voiceMap.evidence} = ${singer.evidence} and ${voiceMap.engine} = ${ENGINE}, false)`,
      /** The last day with a line in the log. */
      lastPractised: sql<string | null>`(select max(${practice.day})::text from ${practice} where ${practice.singerId} = ${singer.id})`,
      /** The newest assigned week: its first day, and on which days of it (0 the first) there is work. */
      assigned: sql<{
        startsOn: string;
        days: number[];
      } | null>`(select jsonb_build_object('startsOn', coalesce(a.starts_on, a.created_at::date), 'days', (select coalesce(jsonb_agg(distinct d), '[]') from jsonb_array_elements(a.items) it, jsonb_array_elements(it->'days') d)) from ${assignment} a where a.singer_id = ${singer.id} order by a.created_at desc limit 1)`,
      /** The days of the last two weeks on which something was practised. */
      practisedOn: sql<
        string[]
      >`(select coalesce(array_agg(distinct ${practice.day}::text), '{}') from ${practice} where ${practice.singerId} = ${singer.id} and ${practice.what}->>'kind' = 'item' and ${practice.day} > current_date - 14)`,
      /** The newest trouble told while practising, of the last three days. */
      told: sql<
        Before | Done | null
      >`(select ${practice.what} from ${practice} where ${practice.singerId} = ${singer.id} and ${practice.day} > current_date - 3 and (jsonb_array_length(coalesce(${practice.what}->'signs', '[]')) > 0 or ${practice.what} @> '{"pain": true}' or ${practice.what} @> '{"hoarse": true}' or ${practice.what} @> '{"ill": true}') order by ${practice.at} desc limit 1)`,
      /** What was answered about health in the last lesson. */
      health: sql<HealthAnswers | null>`(select ${lesson.course}->'health' from ${lesson} where ${lesson.singerId} = ${singer.id} order by ${lesson.startedAt} desc limit 1)`,
    })
    .from(singer)
    .leftJoin(heard, eq(heard.singerId, singer.id))
    .leftJoin(voiceMap, eq(voiceMap.singerId, singer.id))
    .where(eq(singer.studioId, studioId))
    .orderBy(sql`${heard.last} desc nulls last`, singer.name);
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

export async function insertSinger({ db, studioId }: StudioTx, values: SingerFields): Promise<string> {
  const [row] = await db
    .insert(singer)
    .values({ ...values, studioId })
    .returning({ id: singer.id });
  return row.id;
}

export async function updateSinger({ db, studioId }: StudioTx, id: string, values: SingerFields): Promise<void> {
  await db
    .update(singer)
    .set(values)
    .where(and(eq(singer.studioId, studioId), eq(singer.id, id)));
}

/** Put a singer out of the lists, or back. */
export async function archiveSinger({ db, studioId }: StudioTx, id: string, archived: boolean): Promise<void> {
  await db
    .update(singer)
    .set({ archivedAt: archived ? new Date() : null })
    .where(and(eq(singer.studioId, studioId), eq(singer.id, id)));
}

/** Delete a singer for good, with every take, analysis, mark, lesson and assignment. */
export async function deleteSinger({ db, studioId }: StudioTx, id: string): Promise<void> {
  await db.delete(singer).where(and(eq(singer.studioId, studioId), eq(singer.id, id)));
}
