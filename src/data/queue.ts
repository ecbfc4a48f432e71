import PgBoss from 'pg-boss';
import { StudioTx } from './client';

export const ANALYSE_QUEUE = 'analyse-take';
/** Workers listen here and wake at once. */
export const WAKE_CHANNEL = 'wendel_jobs';
/** Each worker holds this advisory lock (shared) while it lives: health looks for it. */
export const WORKER_LOCK = 7419001;

export interface AnalyseJob {
  studioId: string;
  takeId: string;
}

/** A client of the queue that neither migrates nor schedules. `supervise` keeps expired jobs moving: workers only. */
export async function openQueue(connectionString: string, supervise: boolean): Promise<PgBoss> {
  const boss = new PgBoss({ connectionString, migrate: false, schedule: false, supervise, maintenanceIntervalSeconds: 20, max: 3 });
  boss.on('error', () => {});
  await boss.start();
  return boss;
}

const held = globalThis as unknown as { wendelQueue?: Promise<PgBoss> };

/** Put an analysis on the queue inside the take's own transaction: both are there or neither. */
export async function enqueueAnalysis(tx: StudioTx, takeId: string): Promise<void> {
  held.wendelQueue ??= openQueue(process.env.WENDEL_APP_URL!, false);
  const boss = await held.wendelQueue;
  const job: AnalyseJob = { studioId: tx.studioId, takeId };
  await boss.send(ANALYSE_QUEUE, job, { db: { executeSql: async (text, values) => tx.execute(text, values) } });
  await tx.execute(`notify ${WAKE_CHANNEL}`);
}
