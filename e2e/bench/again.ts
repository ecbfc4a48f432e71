// npm run bench -- again: how long it takes to listen to many takes anew, with one analysis process and with two.
import type { Id } from '../../src/core/format/id';
import { Client } from 'pg';
import { inStudio } from '../../src/data/client';
import { enqueueAnalysis } from '../../src/data/queue';
import { joinCopy } from '../joined';

const [takes = 2000] = process.argv.slice(2).map(Number);
const say = (line: string) => process.stdout.write(`${line}\n`);
const LOOK_MS = 500;

const db = new Client({ connectionString: process.env.WENDEL_OWNER_URL });
await db.connect();
const { rows: demo } = await db.query<{ id: string; studio_id: Id<'studio'> }>('select id, studio_id from take order by recorded_at');
const studioId = demo[0].studio_id;

/** So many takes more of the demo's singers, with their sound, nobody has listened to; seconds until all are. */
async function listenTo(count: number): Promise<number> {
  const { rows } = await db.query<{ id: Id<'take'> }>(
    `with made as (select gen_random_uuid() as id, ($2::uuid[])[1 + n % cardinality($2::uuid[])] as of from generate_series(0, $1::int - 1) as n),
     added as (
       insert into take (id, studio_id, singer_id, task, vowel, source, sha256, bytes, duration_s, sample_rate, recorded_at)
       select made.id, t.studio_id, t.singer_id, t.task, t.vowel, t.source, t.sha256, t.bytes, t.duration_s, t.sample_rate, t.recorded_at
       from made join take t on t.id = made.of),
     sounding as (
       insert into take_audio (studio_id, take_id, part, bytes)
       select a.studio_id, made.id, a.part, a.bytes from made join take_audio a on a.take_id = made.of)
     select id from made`,
    [count, demo.map((t) => t.id)],
  );
  const ids = rows.map((r) => r.id);
  await inStudio(studioId, async (tx) => {
    for (const id of ids) await enqueueAnalysis(tx, id, 'later');
  });
  const began = performance.now();
  for (;;) {
    const { rows: done } = await db.query<{ heard: number; wrong: number }>(
      'select count(findings)::int as heard, count(error)::int as wrong from analysis where take_id = any($1)',
      [ids],
    );
    if (done[0].wrong > 0) throw new Error(`${done[0].wrong} of the takes could not be listened to.`);
    if (done[0].heard === count) return (performance.now() - began) / 1000;
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
  }
}

/** The first takes of a process that has just started aren't its usual ones. */
const FIRST_TAKES = 40;
await listenTo(FIRST_TAKES);
const one = await listenTo(takes);
const second = await joinCopy('worker');
try {
  await listenTo(2 * FIRST_TAKES);
  const two = await listenTo(takes);
  say(
    `${takes} takes listened to anew: ${one.toFixed(0)} s by one analysis process, ${two.toFixed(0)} s by two: ${(one / two).toFixed(2)} times`,
  );
} finally {
  await second.stop();
}
process.exit(0);
