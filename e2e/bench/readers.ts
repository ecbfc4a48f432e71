// npm run bench -- readers: how pages answer when a studio full of readers looks at them at once, by one web process and by two.
import { Client } from 'pg';
import { freePort } from '../../bin/lib/postgres.mjs';
import { seededRandom } from '../../src/core/signal/stats';
import { signInOnce } from '../browser';
import { joinCopy } from '../joined';

const [readers = 200, minutes = 5] = process.argv.slice(2).map(Number);
const say = (line: string) => process.stdout.write(`${line}\n`);
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
/** A page is looked at for so long before the next, drawn evenly. */
const LOOKS_S = [5, 15] as const;

const first = `http://localhost:${process.env.WENDEL_PORT}`;
// One session serves all of them: what it costs to know who asks is the same.
const headers = await signInOnce(first);
const db = new Client({ connectionString: process.env.WENDEL_OWNER_URL });
await db.connect();
const { rows: singers } = await db.query<{ id: string }>('select id from singer');
await db.end();
const VIEWS = ['listen', 'map', 'plan', 'progress', 'songs'];
const PAGES = ['/', '/exercises', '/songs', ...singers.flatMap(({ id }) => VIEWS.map((view) => `/singers/${id}/${view}`))];

async function look(servers: readonly string[]): Promise<string> {
  const times: number[] = [];
  let wrong = 0;
  const until = performance.now() + minutes * 60_000;
  await Promise.all(
    Array.from({ length: readers }, async (_, reader) => {
      const random = seededRandom(reader);
      const wait = () => pause(1000 * (LOOKS_S[0] + (LOOKS_S[1] - LOOKS_S[0]) * random()));
      await pause(1000 * LOOKS_S[1] * random());
      while (performance.now() < until) {
        const path = PAGES[Math.floor(PAGES.length * random())];
        const at = performance.now();
        try {
          const answer = await fetch(`${servers[reader % servers.length]}${path}`, { headers, redirect: 'manual' });
          await answer.text();
          if (!answer.ok) wrong++;
        } catch {
          wrong++;
        }
        times.push(performance.now() - at);
        await wait();
      }
    }),
  );
  times.sort((a, b) => a - b);
  const at = (share: number) => times[Math.floor(share * times.length)].toFixed(0);
  return `${times.length} pages, ${wrong} errors, median ${at(0.5)} ms, 95 of 100 under ${at(0.95)} ms`;
}

say(`${readers} readers for ${minutes} minutes, one web process: ${await look([first])}`);
const port = await freePort();
const second = await joinCopy('web', port);
try {
  say(`two: ${await look([first, `http://localhost:${port}`])}`);
} finally {
  await second.stop();
}
process.exit(0);
