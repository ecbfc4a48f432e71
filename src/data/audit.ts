import type { Id } from '../core/format/id';
import { desc, eq } from 'drizzle-orm';
import { inStudio, StudioTx } from './client';
import { audit, Deed, singer } from './schema';

/** Who did something: the name they go by, and their account; null: they have none (a singer, by their link). */
export interface Actor {
  actor: string;
  actorId: string | null;
}

/** Note that somebody looked at singers' records, in a transaction of its own: the look itself may have been read-only. */
export const noteLooks = (studioId: Id<'studio'>, { actor, actorId }: Actor, singerIds: readonly Id<'singer'>[]): Promise<void> =>
  inStudio(studioId, async ({ execute }) => {
    // Gone meanwhile: nobody left to note it about.
    await execute(
      "insert into audit (studio_id, actor, actor_id, did, what, singer_id) select $1, $2, $3, 'looked', 'singer', id from singer where id = any($4)",
      [studioId, actor, actorId, singerIds],
    );
  });

/** Note what was done that changes no row of a singer's: something taken out, a page opened. By whom, the transaction knows. */
export async function note(
  { execute, studioId }: StudioTx,
  { did, what, singerId, detail }: { did: Deed; what: string; singerId?: Id<'singer'>; detail?: string },
): Promise<void> {
  await execute(
    `insert into audit (studio_id, actor, actor_id, did, what, singer_id, detail)
     values ($1, current_setting('wendel.actor'), nullif(current_setting('wendel.actor_id'), ''), $2, $3, $4, $5)`,
    [studioId, did, what, singerId ?? null, detail ?? null],
  );
}

const MOST_SHOWN = 300;

/** The studio's log, newest first. */
export const auditOf = ({ db, studioId }: StudioTx) =>
  db
    .select({
      id: audit.id,
      at: audit.at,
      actor: audit.actor,
      actorId: audit.actorId,
      did: audit.did,
      what: audit.what,
      columns: audit.columns,
      detail: audit.detail,
      singerId: audit.singerId,
      singer: singer.name,
    })
    .from(audit)
    .leftJoin(singer, eq(singer.id, audit.singerId))
    .where(eq(audit.studioId, studioId))
    .orderBy(desc(audit.at))
    .limit(MOST_SHOWN);
