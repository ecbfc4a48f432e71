// npm run bench -- studio: how a full studio answers: 300 singers, 20 000 takes, copied from the demo's own.
import { chromium } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { Client } from 'pg';
import { CHROMIUM, LAUNCH_ARGS, SIGNED_IN, signInOnce } from '../browser';

const baseURL = `http://localhost:${process.env.WENDEL_PORT}`;
const [singers = 300, takesEach = 67, looks = 20] = process.argv.slice(2).map(Number);
const say = (line: string) => process.stdout.write(`${line}\n`);
const median = (values: number[]) => [...values].sort((a, b) => a - b)[values.length >> 1];

/** Fill the studio: made-up singers with the demo's takes and analyses (no sound), and what the coach marked. */
async function fill(db: Client): Promise<string[]> {
  const { rows: demo } = await db.query('select id, studio_id from singer order by created_at limit 6');
  const { rows: takes } = await db.query('select id, singer_id from take order by recorded_at');
  const made: string[] = [];
  await db.query('begin');
  for (let s = 0; s < singers; s++) {
    const like = demo[s % demo.length];
    const id = randomUUID();
    made.push(id);
    await db.query(
      `insert into singer (id, studio_id, name, part, voice_type, evidence)
       select $1, studio_id, 'Chorus ' || lpad($2::text, 3, '0'), part, voice_type, 1 from singer where id = $3`,
      [id, s + 1, like.id],
    );
    const own = takes.filter((t) => t.singer_id === like.id);
    const copies = Array.from({ length: takesEach }, (_, t) => ({ id: randomUUID(), from: own[t % own.length].id, days: t * 5 }));
    await db.query(
      `insert into take (id, studio_id, singer_id, task, vowel, source, sha256, bytes, duration_s, sample_rate, recorded_at)
       select c.id, t.studio_id, $1, t.task, t.vowel, t.source, t.sha256, t.bytes, t.duration_s, t.sample_rate, now() - make_interval(days => c.days)
       from unnest($2::uuid[], $3::uuid[], $4::int[]) as c(id, source_id, days) join take t on t.id = c.source_id`,
      [id, copies.map((c) => c.id), copies.map((c) => c.from), copies.map((c) => c.days)],
    );
    await db.query(
      `insert into analysis (studio_id, take_id, engine, findings, trace)
       select a.studio_id, c.id, a.engine, a.findings, a.trace
       from unnest($1::uuid[], $2::uuid[]) as c(id, source_id) join analysis a on a.take_id = c.source_id`,
      [copies.map((c) => c.id), copies.map((c) => c.from)],
    );
    // A year: six days a week, four exercises a day, a sign now and then.
    await db.query(
      `insert into practice (id, studio_id, singer_id, day, at, what)
       select gen_random_uuid(), studio_id, $1, day::date, day + make_interval(mins => 5 * n),
         jsonb_build_object('kind', 'item', 'exerciseId', (array['flow-hum', 'five-note', 'octave-slide', 'straw-slide'])[n], 'name', 'Exercise ' || n,
'sound', 'vv', 'tempo', 72, 'keys', jsonb_build_array(55, 56, 57, 58), 'seconds', 180, 'load', '{"voicedS": 60, "cycles": 15000}'::jsonb,
           'success', n % 3 > 0, 'effort', 3 + n % 4, 'byHand', false,
           'signs', case when extract(doy from day)::int % 40 = 0 then '["scratch"]'::jsonb else '[]'::jsonb end)
       from singer, generate_series(now() - interval '364 days', now(), interval '1 day') as day, generate_series(1, 4) as n
       where singer.id = $1 and extract(isodow from day) < 7`,
      [id],
    );
  }
  await db.query('commit');
  await db.query('analyze');
  return made;
}

const db = new Client({ connectionString: process.env.WENDEL_OWNER_URL });
await db.connect();
const started = Date.now();
const ids = await fill(db);
const { rows } = await db.query('select (select count(*) from singer)::int as singers, (select count(*) from take)::int as takes');
await db.end();
say(`${rows[0].singers} singers, ${rows[0].takes} takes, filled in ${((Date.now() - started) / 1000).toFixed(0)} s`);

const headers = await signInOnce(baseURL);

/** How long pages take, asked one after another. */
async function look(name: string, path: (i: number) => string): Promise<void> {
  const times: number[] = [];
  for (let i = 0; i < looks; i++) {
    const at = performance.now();
    const answer = await fetch(`${baseURL}${path(i)}`, { headers });
    await answer.text();
    if (!answer.ok) throw new Error(`${path(i)} answered ${answer.status}`);
    times.push(performance.now() - at);
  }
  say(`${name}: ${median(times).toFixed(0)} ms at the median of ${looks} (slowest ${Math.max(...times).toFixed(0)})`);
}

// The first look of a server that has just started is not a coach's usual one.
await (await fetch(`${baseURL}/`, { headers })).text();
await look('studio, while the worker pools maps', () => '/');
// As it is on any day: the maps are known.
const fresh = new Client({ connectionString: process.env.WENDEL_OWNER_URL });
await fresh.connect();
for (let i = 0; i < 600; i++) {
  const { rows: left } = await fresh.query(
    'select count(*)::int as n from singer s left join voice_map v on v.singer_id = s.id and v.evidence = s.evidence where v.singer_id is null and s.evidence > 0',
  );
  if (left[0].n === 0) break;
  await new Promise((resolve) => setTimeout(resolve, 200));
}
await fresh.end();
await look('studio, all maps known', () => '/');
await look('singer', (i) => `/singers/${ids[i]}`);
await look('map', (i) => `/singers/${ids[i]}/map`);
await look('listen', (i) => `/singers/${ids[i]}/listen`);
await look('plan', (i) => `/singers/${ids[i]}/plan`);
await look('progress, after a year of practice', (i) => `/singers/${ids[i]}/progress`);

const browser = await chromium.launch({ executablePath: CHROMIUM, args: LAUNCH_ARGS });
const page = await browser.newPage({ baseURL, viewport: { width: 1280, height: 800 }, storageState: SIGNED_IN });
await page.goto('/');
await page.waitForLoadState('networkidle');
const scroll = await page.evaluate(
  () =>
    new Promise<{ frames: number; long: number }>((resolve) => {
      let long = 0;
      new PerformanceObserver((list) => (long += list.getEntries().length)).observe({ type: 'longtask' });
      let frames = 0;
      const from = performance.now();
      const step = () => {
        scrollBy(0, 60);
        frames++;
        if (performance.now() - from < 3000) requestAnimationFrame(step);
        else resolve({ frames: frames / 3, long });
      };
      requestAnimationFrame(step);
    }),
);
say(`The list of ${rows[0].singers} scrolls at ${scroll.frames.toFixed(0)} frames a second, ${scroll.long} tasks over 50 ms`);
await browser.close();
