import type { Id } from '../core/format/id';
import { and, eq, isNull, sql } from 'drizzle-orm';
import type { HealthAnswers } from '../core/lesson/types';
import type { Intake } from '../core/format/singer';
import type { Pin } from '../core/map/pins';
import type { SchoolId } from '../core/map/schools';
import type { VoiceTypeId } from '../core/plan/voice-types';
import type { TimbreAxis } from '../core/take/timbre';
import { StudioTx } from './client';
import type { Entry } from '../core/practice/types';
import { assignment, lesson, pin, practice, singer, take, TROUBLE, UNANSWERED, voiceMap } from './schema';

export interface SingerRow {
  id: Id<'singer'>;
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

const listed = {
  id: singer.id,
  name: singer.name,
  part: singer.part,
  voiceType: sql<VoiceTypeId>`${singer.voiceType}`,
  archivedAt: singer.archivedAt,
};

const columns = {
  ...listed,
  note: singer.note,
  email: singer.email,
  intake: singer.intake,
  school: singer.school,
  axis: singer.axis,
};

/** When the singer of a row was heard last, as part of a query; null: never. */
export const lastHeardIn = (studioId: Id<'studio'>) =>
  sql<Date | null>`(select max(${take.recordedAt}) from ${take} where ${take.studioId} = ${studioId} and ${take.singerId} = ${singer.id})`;

/** The studio's present singers, by name. */
export const singerNames = ({ db, studioId }: StudioTx) =>
  db
    .select({ id: singer.id, name: singer.name, part: singer.part, voiceType: listed.voiceType })
    .from(singer)
    .where(and(eq(singer.studioId, studioId), isNull(singer.archivedAt)))
    .orderBy(sql`lower(${singer.name})`, singer.id);

/** What the coach pinned in the map of a row's singer, as part of a query. */
export const pinsIn = (studioId: Id<'studio'>) =>
  sql<
    Pin[]
  >`(select coalesce(jsonb_agg(jsonb_build_object('what', ${pin.what}, 'midi', ${pin.midi})), '[]') from ${pin} where ${pin.studioId} = ${studioId} and ${pin.singerId} = ${singer.id})`;

/** All singers, the last heard first, with what their kept maps say (null: never pooled) and how they practise. */
export async function listSingers({ db, studioId }: StudioTx) {
  // That the studio is named again in each is for speed: row-level security then looks at it once, not at every row.
  const practised = sql`from ${practice} where ${practice.studioId} = ${studioId} and ${practice.singerId} = ${singer.id}`;
  const lastHeard = lastHeardIn(studioId);
  return db
    .select({
      ...listed,
      lastHeard: lastHeard.mapWith((v) => (v ? new Date(v) : null)).as('last_heard'),
      summary: voiceMap.summary,
      pins: pinsIn(studioId),
      /** The last day with a line in the log. */
      lastPractised: sql<string | null>`(select max(${practice.day})::text ${practised})`,
      /** The newest assigned week: its first day, and on which days of it (0 the first) there is work. */
      assigned: sql<{
        startsOn: string;
        days: number[];
      } | null>`(select jsonb_build_object('startsOn', coalesce(a.starts_on, a.created_at::date), 'days', (select coalesce(jsonb_agg(distinct d), '[]') from jsonb_array_elements(a.items) it, jsonb_array_elements(it->'days') d)) from ${assignment} a where a.singer_id = ${singer.id} order by a.created_at desc limit 1)`,
      /** The days of the last week, and one more for who lives a day behind the database, on which something was practised. */
      practisedOn: sql<
        string[]
      >`(select coalesce(array_to_json(array_agg(distinct ${practice.day})), '[]') ${practised} and ${practice.what}->>'kind' = 'item' and ${practice.day} >= current_date - 8)`,
      /** The newest trouble told while practising, of the last three days. */
      told: sql<
        Entry['what'] | null
      >`(select ${practice.what} ${practised} and ${practice.day} > current_date - 3 and (${TROUBLE}) order by ${practice.at} desc limit 1)`,
      /** Of what exercise the singer's newest own words of the last two weeks are that nobody has answered; spoken ones may have no `word`. */
      asks: sql<{
        word: string | null;
        name: string;
      } | null>`(select jsonb_build_object('word', ${practice.what}->>'word', 'name', ${practice.what}->>'name') ${practised} and ${practice.day} > current_date - 14 and ${UNANSWERED} order by ${practice.at} desc limit 1)`,
      /** What is known of their health, in the coach's words; empty: nothing. */
      knownHealth: sql<string>`coalesce(${singer.intake}->>'health', '')`,
      /** What was answered about health in the last lesson. */
      health: sql<HealthAnswers | null>`(select ${lesson.course}->'health' from ${lesson} where ${lesson.studioId} = ${studioId} and ${lesson.singerId} = ${singer.id} order by ${lesson.startedAt} desc limit 1)`,
    })
    .from(singer)
    .leftJoin(voiceMap, eq(voiceMap.singerId, singer.id))
    .where(eq(singer.studioId, studioId))
    .orderBy(sql`last_heard desc nulls last`, singer.name);
}

export async function findSinger({ db, studioId }: StudioTx, id: Id<'singer'>): Promise<SingerRow | undefined> {
  const [row] = await db
    .select(columns)
    .from(singer)
    .where(and(eq(singer.studioId, studioId), eq(singer.id, id)));
  return row;
}

/** The singer's own timbre axis; undefined before a calibration. */
export async function axisOf({ db, studioId }: StudioTx, id: Id<'singer'>): Promise<TimbreAxis | undefined> {
  const [row] = await db
    .select({ axis: singer.axis })
    .from(singer)
    .where(and(eq(singer.studioId, studioId), eq(singer.id, id)));
  return row?.axis ?? undefined;
}

export async function saveAxis({ db, studioId }: StudioTx, id: Id<'singer'>, axis: TimbreAxis): Promise<void> {
  await db
    .update(singer)
    .set({ axis })
    .where(and(eq(singer.studioId, studioId), eq(singer.id, id)));
}

export async function insertSinger({ db, studioId }: StudioTx, values: SingerFields): Promise<Id<'singer'>> {
  const [row] = await db
    .insert(singer)
    .values({ ...values, studioId })
    .returning({ id: singer.id });
  return row.id;
}

export async function updateSinger({ db, studioId }: StudioTx, id: Id<'singer'>, values: SingerFields): Promise<void> {
  await db
    .update(singer)
    // The map rests on the voice type too.
    .set({ ...values, evidence: sql`${singer.evidence} + 1` })
    .where(and(eq(singer.studioId, studioId), eq(singer.id, id)));
}

/** Whether a singer may not be recorded yet: a minor for whom no guardian has agreed. */
export const awaitsConsent = (intake: Intake | null): boolean => intake !== null && intake.minor && intake.consent !== 'guardian';

/** Put a singer out of the lists, or back. */
export async function archiveSinger({ db, studioId }: StudioTx, id: Id<'singer'>, archived: boolean): Promise<void> {
  await db
    .update(singer)
    .set({ archivedAt: archived ? new Date() : null })
    .where(and(eq(singer.studioId, studioId), eq(singer.id, id)));
}

/** Delete a singer for good, with every take, analysis, mark, lesson and assignment. */
export async function deleteSinger({ db, execute, studioId }: StudioTx, id: Id<'singer'>): Promise<void> {
  // What waits in the queue, and what was done there, names the takes.
  await execute("delete from pgboss.job where data->>'takeId' in (select id::text from take where studio_id = $1 and singer_id = $2)", [
    studioId,
    id,
  ]);
  await db.delete(singer).where(and(eq(singer.studioId, studioId), eq(singer.id, id)));
}
