import { desc, eq } from 'drizzle-orm';
import { inStudio, StudioTx } from './client';
import { audit, singer } from './schema';

/** Note that somebody looked at singers' records, in a transaction of its own: the look itself may have been read-only. */
export const noteLooks = (studioId: string, actor: string, singerIds: readonly string[]): Promise<void> =>
  inStudio(studioId, async ({ execute }) => {
    // Gone meanwhile: nobody left to note it about.
    await execute(
      "insert into audit (studio_id, actor, did, what, singer_id) select $1, $2, 'looked', 'singer', id from singer where id = any($3)",
      [studioId, actor, singerIds],
    );
  });

const MOST_SHOWN = 300;

/** The studio's log, newest first. */
export const auditOf = ({ db, studioId }: StudioTx) =>
  db
    .select({
      id: audit.id,
      at: audit.at,
      actor: audit.actor,
      did: audit.did,
      what: audit.what,
      columns: audit.columns,
      singerId: audit.singerId,
      singer: singer.name,
    })
    .from(audit)
    .leftJoin(singer, eq(singer.id, audit.singerId))
    .where(eq(audit.studioId, studioId))
    .orderBy(desc(audit.at))
    .limit(MOST_SHOWN);
