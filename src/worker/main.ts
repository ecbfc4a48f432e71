// The analysis process: takes jobs from the queue, woken at once by NOTIFY, with a slow poll in case a wake is lost.
import { Client } from 'pg';
import pino from 'pino';
import { inStudio, studioIds } from '../data/client';
import { wendelIn } from '../studio/context';
import { poolOne } from '../studio/pooling';
import { ANALYSE_QUEUE, AnalyseJob, enqueueAnalysis, openQueue, WAKE_CHANNEL, WORKER_LOCK } from '../data/queue';
import { soundStore } from '../data/sound-store';
import { takesToAnalyse } from '../data/takes';
import { sing } from '../core/sim/sing';
import { typicalProfile } from '../core/sim/typical';
import { analyseTake } from '../core/take/analyse';
import { analyseJob } from '../studio/analyse';
import { deleteOnePiece, storeOnePiece } from '../studio/sound';
import { sweepSound } from '../studio/sweep';

const POLL_MS = 5000;
const SWEEP_MS = 3_600_000;
/** Between one map and the next, times what it took. */
const POOLING_PAUSE = 3;
const RECONNECT_MS = 1000;
const log = pino({ name: 'worker' }, pino.destination(2));
const url = process.env.WENDEL_APP_URL!;

let stopping = false;
/** Woken while at work: there is no time to sleep. */
let woken = false;
let wake: () => void = () => (woken = true);

function sleep(ms: number): Promise<void> {
  if (woken) return Promise.resolve();
  return new Promise((resolve) => {
    const done = () => {
      clearTimeout(timer);
      wake = () => (woken = true);
      resolve();
    };
    const timer = setTimeout(done, ms);
    wake = done;
  });
}

/** Listen for wakes and hold the lock that shows this worker is alive; connect again when the database was away. */
async function listen(): Promise<void> {
  const client = new Client({ connectionString: url, keepAlive: true });
  const again = () => {
    if (!stopping) setTimeout(() => void listen(), RECONNECT_MS);
  };
  client.on('error', () => {});
  client.on('notification', () => wake());
  try {
    await client.connect();
    await client.query('select pg_advisory_lock_shared($1)', [WORKER_LOCK]);
    await client.query(`listen ${WAKE_CHANNEL}`);
    client.once('end', again);
    wake();
  } catch (error) {
    log.warn({ error: (error as Error).message }, 'database away, trying again');
    await client.end().catch(() => {});
    again();
  }
}

/** What came of a job is said until the queue has heard it: with the database away for a moment it would be thought under way for minutes. */
async function untilSaid(say: () => Promise<unknown>): Promise<void> {
  while (!stopping) {
    try {
      await say();
      return;
    } catch (error) {
      log.warn({ error: (error as Error).message }, 'queue away, saying it again');
      await new Promise((resolve) => setTimeout(resolve, RECONNECT_MS));
    }
  }
}

async function drain(boss: Awaited<ReturnType<typeof openQueue>>): Promise<void> {
  while (!stopping) {
    const [job] = await boss.fetch<AnalyseJob>(ANALYSE_QUEUE);
    if (!job) return;
    const started = performance.now();
    try {
      await analyseJob(job.data);
      await untilSaid(() => boss.complete(ANALYSE_QUEUE, job.id));
      log.info({ take: job.data.takeId, ms: Math.round(performance.now() - started) }, 'analysed');
    } catch (error) {
      log.error({ take: job.data.takeId, error: (error as Error).message }, 'analysis failed, will be tried again');
      await untilSaid(() => boss.fail(ANALYSE_QUEUE, job.id, { message: (error as Error).message }));
    }
  }
}

async function connectQueue(): ReturnType<typeof openQueue> {
  for (;;) {
    try {
      return await openQueue(url, true);
    } catch (error) {
      log.warn({ error: (error as Error).message }, 'database away, trying again');
      await sleep(RECONNECT_MS);
    }
  }
}

/** What an earlier engine analysed is analysed again; its own results stay as they are. */
async function catchUp(): Promise<void> {
  for (const studioId of await studioIds()) {
    const missing = await inStudio(studioId, takesToAnalyse);
    for (const takeId of missing) {
      if (stopping) return;
      await inStudio(studioId, (tx) => enqueueAnalysis(tx, takeId, 'later'));
    }
    if (missing.length > 0) log.info({ takes: missing.length }, 'queued for this engine');
  }
}

/** The first analysis after a start would run uncompiled and take three times as long: let it be nobody's take. */
function warmUp() {
  const { pcm } = sing(typicalProfile('tenor', 'flip'), { kind: 'siren' }, { seed: 1 });
  for (let i = 0; i < 6; i++) analyseTake(pcm, 'siren');
}

/** Delete sound that is older than its studio keeps. A take that waits to be analysed is analysed first. */
async function sweep(): Promise<void> {
  for (const studioId of await studioIds()) {
    const removed = await wendelIn(studioId)(sweepSound);
    if (removed > 0) log.info({ takes: removed }, 'their time is over: sound deleted');
  }
}

/** With nothing to analyse, pool the map of one voice in each studio whose evidence has changed. Whether there was one. */
async function poolMaps(): Promise<boolean> {
  let some = false;
  for (const studioId of await studioIds()) some = (await wendelIn(studioId)(poolOne)) || some;
  return some;
}

const store = soundStore();
/** Pieces sent to the store, and deleted there, in one go: takes that arrive meanwhile wait no longer than for these. */
const MOST_PIECES = 20;

/** With nothing to analyse, sound goes where it is to rest. Whether there may be more. */
async function storeSound(): Promise<boolean> {
  if (!store) return false;
  let some = false;
  for (const studioId of await studioIds()) {
    const run = wendelIn(studioId);
    for (let n = 0; n < MOST_PIECES && !stopping && !woken; n++) {
      const deleted = await run(deleteOnePiece, store);
      const stored = await storeOnePiece(run, store);
      if (!deleted && !stored) break;
      some = true;
    }
  }
  return some;
}

async function main() {
  const boss = await connectQueue();
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.on(signal, () => {
      stopping = true;
      wake();
    });
  await listen();
  log.info('ready');
  warmUp();
  await catchUp().catch((error: Error) => log.warn({ error: error.message }, 'could not look for older takes'));
  let swept = 0;
  while (!stopping) {
    if (Date.now() - swept > SWEEP_MS) {
      swept = Date.now();
      await sweep().catch((error: Error) => log.warn({ error: error.message }, 'could not delete old sound'));
    }
    woken = false;
    await drain(boss).catch((error: Error) => log.warn({ error: error.message }, 'queue away, trying again'));
    const began = performance.now();
    const pooled = await poolMaps().catch((error: Error) => {
      log.warn({ error: error.message }, 'could not pool a map');
      return false;
    });
    const pooledMs = performance.now() - began;
    const stored = await storeSound().catch((error: Error) => {
      log.warn({ error: error.message }, 'the sound store is away: sound stays in the database until it is back');
      return false;
    });
    // Nobody waits for a map: the pages may have the processor for most of the time.
    if (!stopping) await sleep(pooled ? POOLING_PAUSE * pooledMs : stored ? 0 : POLL_MS);
  }
  process.exit(0);
}

void main();
