import type { Id } from '../core/format/id';
import { subMinutes } from 'date-fns';
import { and, asc, desc, eq, isNotNull, isNull, lt, notInArray, or } from 'drizzle-orm';
import { pool, StudioTx } from './client';
import { link, message } from './schema';

export interface FoundLink {
  id: Id<'link'>;
  studioId: Id<'studio'>;
  singerId: Id<'singer'>;
}

/** Whose link this is, by the hash of its token; null for none, a revoked or an expired one. */
export async function linkByHash(tokenHash: string): Promise<FoundLink | null> {
  const client = await pool().connect();
  try {
    await client.query('begin');
    await client.query("select set_config('wendel.link', $1, true)", [tokenHash]);
    const { rows } = await client.query(
      'select id, studio_id as "studioId", singer_id as "singerId" from link where token_hash = $1 and revoked_at is null and expires_at > now()',
      [tokenHash],
    );
    await client.query('commit');
    return rows[0] ?? null;
  } catch (error) {
    await client.query('rollback').catch(() => {});
    throw error;
  } finally {
    client.release();
  }
}

const ofSinger = ({ studioId }: StudioTx, singerId: Id<'singer'>) =>
  and(eq(link.studioId, studioId), eq(link.singerId, singerId), isNull(link.revokedAt));

export async function revokeLinks(tx: StudioTx, singerId: Id<'singer'>): Promise<void> {
  await tx.db.update(link).set({ revokedAt: new Date() }).where(ofSinger(tx, singerId));
}

export async function insertLink({ db, studioId }: StudioTx, singerId: Id<'singer'>, tokenHash: string, expiresAt: Date): Promise<void> {
  await db.insert(link).values({ studioId, singerId, tokenHash, expiresAt });
}

/** Minutes within which a link's use is noted once: a page asks often, and must not wait for itself. */
const USED_NOTED_MIN = 60;

/** Note that a link is in use. Whether that is news. */
export async function linkUsed({ db, studioId }: StudioTx, id: Id<'link'>): Promise<boolean> {
  const now = new Date();
  const noted = await db
    .update(link)
    .set({ usedAt: now })
    .where(and(eq(link.studioId, studioId), eq(link.id, id), or(isNull(link.usedAt), lt(link.usedAt, subMinutes(now, USED_NOTED_MIN)))))
    .returning({ id: link.id });
  return noted.length > 0;
}

export async function insertMessage({ db, studioId }: StudioTx, values: Omit<typeof message.$inferInsert, 'studioId'>): Promise<void> {
  await db.insert(message).values({ ...values, studioId });
}

const MOST_SHOWN = 200;

/** The studio's messages, newest first; those that hold a key to a coach's account for owners only. */
export async function messagesOf({ db, studioId }: StudioTx, forOwners: boolean) {
  return db
    .select()
    .from(message)
    .where(and(eq(message.studioId, studioId), forOwners ? undefined : eq(message.forOwners, false)))
    .orderBy(desc(message.madeAt))
    .limit(MOST_SHOWN);
}

/**
 * The oldest message that has an address and was not taken by a mail server yet, held against others until the transaction ends;
 * undefined when there is none but those tried already.
 */
export async function takeUnsent({ db, studioId }: StudioTx, tried: readonly Id<'message'>[]) {
  const [row] = await db
    .select()
    .from(message)
    .where(and(eq(message.studioId, studioId), isNotNull(message.address), isNull(message.sentAt), notInArray(message.id, [...tried])))
    .orderBy(asc(message.madeAt))
    .limit(1)
    .for('update', { skipLocked: true });
  return row;
}

/** The mail server took a message (its words, which hold a key, are then forgotten), or wouldn't. */
export async function messageSent({ db, studioId }: StudioTx, id: Id<'message'>, problem: string | null): Promise<void> {
  await db
    .update(message)
    .set(problem === null ? { sentAt: new Date(), body: '', problem } : { problem })
    .where(and(eq(message.studioId, studioId), eq(message.id, id)));
}
