import type { Id } from '../core/format/id';
import { and, desc, eq, inArray, isNotNull, isNull, ne, sql } from 'drizzle-orm';
import type { PassWord, Said } from '../core/ears/passes';
import type { SchoolId } from '../core/map/schools';
import type { Trust } from '../core/map/trust';
import type { Passaggio } from '../core/map/types';
import type { TakeFindings } from '../core/take/types';
import { StudioTx } from './client';
import { analysis, earAnswer, singer, studio, take, voiceMap } from './schema';
import { present } from './takes';

/** Slides that can be heard, of singers who are here, as far as passes are cut from them; drawn anew each time. */
export async function slidesToHear({ db, studioId }: StudioTx, n: number, answered: boolean) {
  const known = db.select({ id: earAnswer.takeId }).from(earAnswer).where(eq(earAnswer.studioId, studioId));
  return db
    .select({ id: take.id, singerId: take.singerId, findings: sql<TakeFindings>`${analysis.findings} - 'profile' - 'notes'` })
    .from(take)
    .innerJoin(analysis, present)
    .innerJoin(singer, eq(singer.id, take.singerId))
    .where(
      and(
        eq(take.studioId, studioId),
        eq(take.task, 'siren'),
        isNull(take.soundRemovedAt),
        isNull(singer.archivedAt),
        isNotNull(analysis.findings),
        answered ? inArray(take.id, known) : undefined,
      ),
    )
    .orderBy(sql`random()`)
    .limit(n);
}

/** The passaggi of kept maps, by singer. */
export async function keptPassaggi({ db, studioId }: StudioTx, singerIds: readonly Id<'singer'>[]): Promise<Map<string, Passaggio[]>> {
  const rows = await db
    .select({ id: voiceMap.singerId, passaggi: sql<Passaggio[]>`${voiceMap.map}->'passaggi'` })
    .from(voiceMap)
    .where(and(eq(voiceMap.studioId, studioId), inArray(voiceMap.singerId, [...singerIds])));
  return new Map(rows.map((row) => [row.id, row.passaggi]));
}

type Row = typeof earAnswer.$inferSelect;
type Heard = Omit<Said, 'school'>;
const asHeard = ({ takeId, startS, endS, direction, coachId, saidAt, name, midi, machineName, machineMidi }: Row): Heard => ({
  pass: { takeId, startS, endS, direction },
  coachId,
  saidAt: saidAt.getTime(),
  word: { name, midi },
  machine: { name: machineName, midi: machineMidi },
});

/** So many answers are compared: the newest. */
const MOST_COMPARED = 5000;

/** What the studio's coaches heard blind, newest first. */
export async function heardBlind({ db, studioId }: StudioTx): Promise<Said[]> {
  const rows = await db
    .select({ answer: earAnswer, school: sql<SchoolId>`coalesce(${singer.school}, ${studio.school})` })
    .from(earAnswer)
    .innerJoin(take, eq(take.id, earAnswer.takeId))
    .innerJoin(singer, eq(singer.id, take.singerId))
    .innerJoin(studio, eq(studio.id, earAnswer.studioId))
    .where(eq(earAnswer.studioId, studioId))
    .orderBy(desc(earAnswer.saidAt))
    .limit(MOST_COMPARED);
  return rows.map(({ answer, school }) => ({ ...asHeard(answer), school }));
}

/** The answers given to passes of one singer's takes. */
export async function heardBlindOf({ db, studioId }: StudioTx, singerId: Id<'singer'>): Promise<(Heard & { id: Id<'answer'> })[]> {
  const rows = await db
    .select({ answer: earAnswer })
    .from(earAnswer)
    .innerJoin(take, eq(take.id, earAnswer.takeId))
    .where(and(eq(earAnswer.studioId, studioId), eq(take.singerId, singerId)));
  return rows.map(({ answer }) => ({ id: answer.id, ...asHeard(answer) }));
}

/** Keep a word; sent twice it is one. */
export async function keepHeard(
  { db, studioId }: StudioTx,
  id: Id<'answer'>,
  { pass, coachId, word, machine }: Omit<Heard, 'saidAt'>,
): Promise<void> {
  await db
    .insert(earAnswer)
    .values({
      id,
      studioId,
      ...pass,
      takeId: pass.takeId as Id<'take'>,
      coachId,
      ...word,
      machineName: machine.name,
      machineMidi: machine.midi,
    })
    .onConflictDoNothing();
}

/** A coach's own words are forgotten: one of them, or all. */
export async function forgetHeard({ db, studioId }: StudioTx, coachId: string, id?: Id<'answer'>): Promise<void> {
  await db
    .delete(earAnswer)
    .where(and(eq(earAnswer.studioId, studioId), eq(earAnswer.coachId, coachId), id === undefined ? undefined : eq(earAnswer.id, id)));
}

/** The machine hears a pass anew. */
export async function setMachine({ db, studioId }: StudioTx, id: Id<'answer'>, { name, midi }: PassWord): Promise<void> {
  await db
    .update(earAnswer)
    .set({ machineName: name, machineMidi: midi })
    .where(and(eq(earAnswer.studioId, studioId), eq(earAnswer.id, id)));
}

/** How often coaches, asked blind, heard a change where the machine does. */
export async function trustIn({ db, studioId }: StudioTx): Promise<Trust> {
  const rows = await db
    .select({
      name: sql<keyof Trust>`${earAnswer.machineName}`,
      asked: sql<number>`count(*)::int`,
      there: sql<number>`(count(*) filter (where ${earAnswer.name} <> 'none'))::int`,
    })
    .from(earAnswer)
    .where(and(eq(earAnswer.studioId, studioId), ne(earAnswer.machineName, 'none')))
    .groupBy(earAnswer.machineName);
  return Object.fromEntries(rows.map(({ name, ...of }) => [name, of]));
}
