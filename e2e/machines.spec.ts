import { APIRequestContext, request as http } from '@playwright/test';
import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { createServer, request as ask } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import { Readable } from 'node:stream';
import { databaseUrls, freePort } from '../bin/lib/postgres.mjs';
import { writeWav } from '../src/core/format/wav';
import { sing } from '../src/core/sim/sing';
import { typicalProfile } from '../src/core/sim/typical';
import { joinCopy } from './joined';
import { addSinger, COACH, COPY, expect, NOBODY, signIn, test } from './browser';

/** A plain proxy that hands requests to two web servers in turn. */
async function proxy(ports: number[]) {
  let turn = 0;
  const server = createServer((from, to) => {
    const port = ports[turn++ % ports.length];
    const on = ask({ host: '127.0.0.1', port, path: from.url, method: from.method, headers: from.headers }, (answer) => {
      to.writeHead(answer.statusCode!, answer.headers);
      answer.pipe(to);
    });
    on.on('error', () => to.destroy());
    from.pipe(on);
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return { url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, close: () => server.close() };
}

/** What a stream of changes tells whoever is signed in there: the next of a kind. */
async function listenTo(request: APIRequestContext, address: string): Promise<{ next(what: string): Promise<unknown>; end(): void }> {
  const { cookies } = await request.storageState();
  const gone = new AbortController();
  const answer = await fetch(address, { headers: { cookie: cookies.map((c) => `${c.name}=${c.value}`).join('; ') }, signal: gone.signal });
  const lines = createInterface(Readable.fromWeb(answer.body as never));
  const told = lines[Symbol.asyncIterator]();
  return {
    async next(what) {
      for (let line = await told.next(); !line.done; line = await told.next())
        if (line.value.startsWith('data: ') && line.value.includes(what)) return JSON.parse(line.value.slice('data: '.length));
      throw new Error('The stream ended.');
    },
    end: () => gone.abort(),
  };
}

test('two web and two analysis processes on one database, behind a proxy, are one Wendel', async ({ browser, request }) => {
  test.setTimeout(480_000);
  const port = await freePort();
  const [web, worker] = await Promise.all([joinCopy('web', port), joinCopy('worker')]);
  const front = await proxy([COPY.port, port]);
  try {
    // Signed in at one, known at the other; whatever is asked goes to either.
    const context = await browser.newContext({ baseURL: front.url, storageState: NOBODY });
    const page = await context.newPage();
    await page.goto('/sign-in');
    await signIn(page, COACH);
    await expect(page.getByRole('link', { name: 'Lio Fenn', exact: true })).toBeVisible();
    expect(await (await page.request.get('/api/health')).json()).toMatchObject({ ok: true, workers: 2 });
    await addSinger(page, 'Sable Marsh', 'Tenor');
    const singerId = /singers\/([^/]+)/.exec(page.url())![1];
    const siren = writeWav(sing(typicalProfile('tenor', 'flip'), { kind: 'siren', legS: 3 }, { seed: 8, sampleRate: 44100 }).pcm, 16);
    for (const n of [1, 2, 3]) {
      await page.getByLabel('Audio file').setInputFiles({ name: `${n}.wav`, mimeType: 'audio/wav', buffer: Buffer.from(siren) });
      await expect(page.getByRole('region', { name: 'What was found' })).toBeVisible();
    }
    await page.goto(`/singers/${singerId}/map`);
    await expect(page.getByTestId('passaggio').first()).toBeVisible();

    // What a singer practises by one is news at the other.
    const { address } = (await (await request.post(`/api/singers/${singerId}/link`)).json()) as { address: string };
    const token = new URL(address).pathname.split('/').pop();
    const changes = await listenTo(request, `http://127.0.0.1:${COPY.port}/api/changes`);
    const line = {
      id: crypto.randomUUID(),
      assignmentId: null,
      day: '2026-11-25',
      at: '2026-11-25T08:00:00.000Z',
      what: { kind: 'before', hoarse: false, ill: false, pain: false, tired: false },
    };
    const there = await http.newContext({ baseURL: `http://127.0.0.1:${port}`, storageState: NOBODY });
    expect((await there.post(`/api/p/${token}/entries`, { data: { entries: [line] } })).status()).toBe(200);
    expect(await changes.next('practised')).toEqual({ what: 'practised', id: singerId });
    changes.end();

    // Tries are counted together.
    const email = `${crypto.randomUUID()}@barge.example`;
    const here = await http.newContext({ baseURL: `http://127.0.0.1:${COPY.port}`, storageState: NOBODY });
    const answers: number[] = [];
    for (let i = 0; i < 22; i++)
      answers.push((await (i % 2 ? here : there).post('/api/door/sign-in', { data: { email, password: 'a wrong one indeed' } })).status());
    // On a slow machine some of the count may run out meanwhile.
    expect(answers.filter((s) => s === 429).length).toBeGreaterThan(0);

    // One web server and one analysis gone for good: the others go on.
    await Promise.all([web.stop(), worker.stop()]);
    expect(await (await request.get('/api/health')).json()).toMatchObject({ ok: true, workers: 1 });
    await page.goto(`http://127.0.0.1:${COPY.port}/singers/${singerId}/map`);
    await expect(page.getByTestId('passaggio').first()).toBeVisible();
    // Not by the proxy, half of which is gone.
    await request.delete(`/api/singers/${singerId}`, { data: { name: 'Sable Marsh' } });
    await Promise.all([here.dispose(), there.dispose(), context.close()]);
  } finally {
    front.close();
    await Promise.all([web.stop(), worker.stop()]);
  }
});

/** The parent of a process that lives: what has ended but nobody has asked after doesn't. */
function parentOf(pid: number): number | null {
  try {
    const [state, parent] = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
    return state === 'Z' ? null : Number(parent);
  } catch {
    return null;
  }
}
const lives = (pid: number) => parentOf(pid) !== null;

/** The processes that listen at a port and answer requests, by their parent. */
const webProcesses = (parent: number) =>
  readdirSync('/proc')
    .filter((pid) => /^\d+$/.test(pid))
    .map(Number)
    .filter((pid) => parentOf(pid) === parent);

test('several web processes share one port: one that dies is replaced while the others answer, and all go together', async () => {
  const port = await freePort();
  const web = await joinCopy('web', port, { WENDEL_WEB_PROCESSES: '2' });
  // What was being handed to a process that is killed is never answered: who asks gives up, and asks again.
  const answers = () =>
    fetch(`http://127.0.0.1:${port}/api/health?ready`, { signal: AbortSignal.timeout(5000) }).then(
      (answer) => answer.ok,
      () => false,
    );
  try {
    const [shared] = webProcesses(web.pid);
    await expect.poll(() => webProcesses(shared).length).toBe(2);
    const [one, other] = webProcesses(shared);
    process.kill(one, 'SIGKILL');
    await expect.poll(() => webProcesses(shared).includes(one)).toBe(false);
    await expect.poll(answers).toBe(true);
    await expect.poll(() => webProcesses(shared).length).toBe(2);
    expect(webProcesses(shared)).toContain(other);
    // Their parent gone, they go, and are begun anew by whoever started it.
    process.kill(shared, 'SIGKILL');
    await expect.poll(() => webProcesses(web.pid).filter((pid) => pid !== shared).length).toBe(1);
    await expect.poll(() => lives(other)).toBe(false);
    await expect.poll(answers).toBe(true);
  } finally {
    await web.stop();
  }
  await expect.poll(answers).toBe(false);
});

test('a part that joins says what it lacks, and a second Wendel takes no database from the first', async () => {
  const start = async (env: Record<string, string>, ...words: string[]) => {
    const child = spawn(process.execPath, ['bin/start.mjs', ...words], {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: {
        ...process.env,
        PORT: String(await freePort()),
        WENDEL_DATA: mkdtempSync(join(tmpdir(), 'wendel-second-')),
        WENDEL_BUILD: '.next-test',
        ...env,
      },
    });
    let said = '';
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (bytes: Buffer) => (said += bytes));
    const code = await new Promise((done) => child.once('exit', done));
    return `${code} ${said}`;
  };
  expect(await start({ DATABASE_URL: '' }, '--role', 'web')).toMatch(/^1 [^]*To join as web/);
  expect(await start({ WENDEL_WEB_PROCESSES: 'many' })).toMatch(/^1 [^]*WENDEL_WEB_PROCESSES is "many"/);
  expect(await start({}, '--role', 'kitchen')).toMatch(/^1 [^]*no role kitchen/);
  const { ownerUrl } = databaseUrls(COPY.data);
  expect(await start({ DATABASE_URL: ownerUrl })).toMatch(/^1 [^]*used by another Wendel/);
  expect((await fetch(`http://127.0.0.1:${COPY.port}/api/health`)).ok).toBe(true);
});
