import { and, desc, eq, isNull } from 'drizzle-orm';
import { pool, StudioTx } from './client';
import { link, message } from './schema';

export interface FoundLink {
  id: string;
  studioId: string;
  singerId: string;
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

const ofSinger = ({ studioId }: StudioTx, singerId: string) =>
  and(eq(link.studioId, studioId), eq(link.singerId, singerId), isNull(link.revokedAt));

/** The link a singer has now; undefined when there is none. */
export async function presentLink(tx: StudioTx, singerId: string) {
  const [row] = await tx.db
    .select({ createdAt: link.createdAt, expiresAt: link.expiresAt, usedAt: link.usedAt })
    .from(link)
    .where(ofSinger(tx, singerId))
    .orderBy(desc(link.createdAt))
    .limit(1);
  return row;
}

export async function revokeLinks(tx: StudioTx, singerId: string): Promise<void> {
  await tx.db.update(link).set({ revokedAt: new Date() }).where(ofSinger(tx, singerId));
}

export async function insertLink({ db, studioId }: StudioTx, singerId: string, tokenHash: string, expiresAt: Date): Promise<void> {
  await db.insert(link).values({ studioId, singerId, tokenHash, expiresAt });
}

export async function linkUsed({ db, studioId }: StudioTx, id: string): Promise<void> {
  await db
    .update(link)
    .set({ usedAt: new Date() })
    .where(and(eq(link.studioId, studioId), eq(link.id, id)));
}

export async function insertMessage(
  { db, studioId }: StudioTx,
  values: { singerId: string | null; recipient: string; subject: string; body: string },
): Promise<void> {
  await db.insert(message).values({ ...values, studioId });
}

const MOST_SHOWN = 200;

/** The studio's messages, newest first. */
export async function messagesOf({ db, studioId }: StudioTx) {
  return db.select().from(message).where(eq(message.studioId, studioId)).orderBy(desc(message.madeAt)).limit(MOST_SHOWN);
}
