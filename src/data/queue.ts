import type { Id } from '../core/format/id';
import PgBoss from 'pg-boss';
import { pool, StudioTx } from './client';

export const ANALYSE_QUEUE = 'analyse-take';
/** Workers listen here and wake at once. */
export const WAKE_CHANNEL = 'wendel_jobs';
/** Each worker holds this advisory lock (shared) while it lives: health looks for it. */
export const WORKER_LOCK = 7419001;

export interface AnalyseJob {
  studioId: Id<'studio'>;
  takeId: Id<'take'>;
}

const HOUR_S = 3600;

/** A client of the queue that neither migrates nor schedules. `supervise` keeps expired jobs moving: workers only. */
export async function openQueue(connectionString: string, supervise: boolean): Promise<PgBoss> {
  const boss = new PgBoss({
    connectionString,
    migrate: false,
    schedule: false,
    supervise,
    maintenanceIntervalSeconds: 20,
    max: 3,
    archiveCompletedAfterSeconds: HOUR_S,
    deleteAfterHours: 24,
  });
  boss.on('error', () => {});
  await boss.start();
  return boss;
}

const held = globalThis as unknown as { wendelQueue?: Promise<PgBoss> };

/** A studio's own waiting takes count against its next one, so that one with hundreds doesn't keep the others waiting; up to so many. */
const MOST_COUNTED = 500;
/** What nobody waits for (an earlier engine's takes heard anew) comes after all that somebody does. */
const LATER = -1000;

async function priorityOf({ execute, studioId }: StudioTx): Promise<number> {
  const { rows } = await execute(
    `select count(*)::int as n from (
       select 1 from pgboss.job where name = $1 and state < 'active' and priority > $2 and data->>'studioId' = $3 limit $4) waiting`,
    [ANALYSE_QUEUE, LATER, studioId, MOST_COUNTED],
  );
  return -(rows as { n: number }[])[0].n;
}

/** Put an analysis on the queue inside the take's own transaction: both are there or neither. */
export async function enqueueAnalysis(tx: StudioTx, takeId: Id<'take'>, when: 'now' | 'later' = 'now'): Promise<void> {
  held.wendelQueue ??= openQueue(process.env.WENDEL_APP_URL!, false);
  const boss = await held.wendelQueue;
  const job: AnalyseJob = { studioId: tx.studioId, takeId };
  const priority = when === 'later' ? LATER : await priorityOf(tx);
  await boss.send(ANALYSE_QUEUE, job, { priority, db: { executeSql: async (text, values) => tx.execute(text, values) } });
  await tx.execute(`notify ${WAKE_CHANNEL}`);
}

/** How the queue is: takes waiting, how long the one that somebody waits for longest has, and what was given up in the last day. */
export async function queueNow(): Promise<{ waiting: number; longestS: number; failed: number }> {
  const { rows } = await pool().query(
    `select count(*) filter (where state < 'active')::int as waiting,
       coalesce(extract(epoch from now() - min(created_on) filter (where state < 'active' and priority > $2)), 0)::float8 as "longestS",
       count(*) filter (where state = 'failed' and completed_on > now() - interval '1 day')::int as failed
     from pgboss.job where name = $1`,
    [ANALYSE_QUEUE, LATER],
  );
  return rows[0];
}
