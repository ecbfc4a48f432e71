import type { Id } from '../core/format/id';
import { and, asc, eq, lt, sql } from 'drizzle-orm';
import { StudioTx } from './client';
import { spokenWord } from './schema';

/** Keep a spoken word; one that is there already stays as it is. @returns whether it is new. */
export async function putSpoken(
  { db, studioId }: StudioTx,
  row: { id: Id<'entry'>; singerId: Id<'singer'>; wav: Buffer },
): Promise<boolean> {
  const put = await db
    .insert(spokenWord)
    .values({ ...row, studioId })
    .onConflictDoNothing()
    .returning({ id: spokenWord.id });
  return put.length > 0;
}

/** Of a singer's spoken words keep the newest `most`. */
export async function keepNewestSpoken({ execute, studioId }: StudioTx, singerId: Id<'singer'>, most: number): Promise<void> {
  await execute(
    `delete from spoken_word where studio_id = $1 and id in (
       select id from spoken_word where studio_id = $1 and singer_id = $2 order by spoken_at desc, id offset $3
     )`,
    [studioId, singerId, most],
  );
}

export async function soundOfSpoken(
  { db, studioId }: StudioTx,
  id: Id<'entry'>,
): Promise<{ wav: Buffer; singerId: Id<'singer'> } | undefined> {
  const [row] = await db
    .select({ wav: spokenWord.wav, singerId: spokenWord.singerId })
    .from(spokenWord)
    .where(and(eq(spokenWord.studioId, studioId), eq(spokenWord.id, id)));
  return row;
}

/** @returns whether there was one. */
export async function deleteSpoken({ db, studioId }: StudioTx, id: Id<'entry'>): Promise<boolean> {
  const gone = await db
    .delete(spokenWord)
    .where(and(eq(spokenWord.studioId, studioId), eq(spokenWord.id, id)))
    .returning({ id: spokenWord.id });
  return gone.length > 0;
}

/** A singer's spoken words without their sound, oldest first. */
export const spokenOf = ({ db, studioId }: StudioTx, singerId: Id<'singer'>) =>
  db
    .select({ id: spokenWord.id, spokenAt: spokenWord.spokenAt })
    .from(spokenWord)
    .where(and(eq(spokenWord.studioId, studioId), eq(spokenWord.singerId, singerId)))
    .orderBy(asc(spokenWord.spokenAt));

/** Delete what was spoken before a moment. How many. */
export async function removeSpoken({ db, studioId }: StudioTx, before: Date): Promise<number> {
  const gone = await db
    .delete(spokenWord)
    .where(and(eq(spokenWord.studioId, studioId), lt(spokenWord.spokenAt, before)))
    .returning({ one: sql`1` });
  return gone.length;
}
