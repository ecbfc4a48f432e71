import { request as http } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { request as ask } from 'node:http';
import { connect } from 'node:net';
import { COACH, expect, NOBODY, signIn, signInOnce, test } from './browser';

/** Long for one who answers, however crowded the machine; nobody who is held up by what others do would make it. */
const IN_TIME = { timeout: 20_000 };

test('uploads that never go on keep nobody waiting, and are let go', async ({ request, baseURL }) => {
  const { cookie } = await signInOnce(baseURL!);
  const { id } = (await (
    await request.post('/api/singers', { data: { name: 'Pell Sander', part: '', voiceType: 'tenor', note: '' } })
  ).json()) as {
    id: string;
  };
  const { hostname, port } = new URL(baseURL!);
  const query = new URLSearchParams({
    singerId: id,
    task: 'siren',
    source: 'file',
    sha256: '0'.repeat(64),
    recordedAt: new Date().toISOString(),
  });
  // More than the database has connections for.
  const lines = Array.from({ length: 12 }, () => {
    const socket = connect(Number(port), hostname);
    socket.write(
      `PUT /api/takes/${randomUUID()}?${query} HTTP/1.1\r\nHost: ${hostname}:${port}\r\nCookie: ${cookie}\r\nContent-Type: audio/wav\r\nContent-Length: 100000\r\n\r\nRIFF`,
    );
    return { socket, answer: new Promise<string>((told) => socket.once('data', (bytes) => told(String(bytes)))) };
  });
  for (let i = 0; i < 3; i++)
    for (const path of ['/api/health', '/', '/sign-in']) expect((await request.get(path, IN_TIME)).status()).toBe(200);
  const answers = await Promise.all(lines.map(async ({ answer }) => /^HTTP\/1.1 (\d+)/.exec(await answer)![1]));
  for (const { socket } of lines) socket.destroy();
  // Few of one singer at once; those are let go when they stay silent.
  expect(answers.sort()).toEqual([...Array(4).fill('408'), ...Array(8).fill('429')]);
});

test('a body of 150 MB is refused before it is read', async ({ request, baseURL }) => {
  const { hostname, port } = new URL(baseURL!);
  const send = (path: string, headers: Record<string, string | number>) =>
    new Promise<{ status: number; sent: number }>((done, fail) => {
      let sent = 0;
      const out = ask(
        { hostname, port, path, method: 'POST', headers: { 'content-type': 'application/json', ...headers } },
        ({ statusCode }) => done({ status: statusCode!, sent }),
      );
      out.on('error', fail);
      const piece = Buffer.alloc(100_000, '[],');
      const go = () => {
        for (; sent < 150e6; sent += piece.length) if (!out.write(piece)) return out.once('drain', go);
        out.end();
      };
      go();
    });
  const told: Record<string, string | number>[] = [{ 'content-length': 150e6 }, { 'transfer-encoding': 'chunked' }];
  for (const headers of told) {
    const { status, sent } = await send('/api/door/sign-in', headers);
    expect(status).toBe(413);
    expect(sent).toBeLessThan(150e6);
    expect((await request.get('/api/health', IN_TIME)).status()).toBe(200);
  }
});

test('after signing out nothing of the studio is left in the browser', async ({ browser, baseURL, page }) => {
  const context = await browser.newContext({ baseURL, storageState: NOBODY });
  const there = await context.newPage();
  await there.goto('/sign-in');
  await signIn(there, COACH);
  await expect(there.getByRole('link', { name: 'Lio Fenn', exact: true })).toBeVisible();
  const { id } = (await (
    await page.request.post('/api/singers', { data: { name: 'Tam Weir', part: '', voiceType: 'bass', note: '' } })
  ).json()) as { id: string };
  const paths = [`/api/singers/${id}/map?until=2030-01-01`];
  const take = await there.evaluate(async () => /takes\/([0-9a-f-]{36})/.exec(await (await fetch('/')).text())?.[1]);
  if (take) paths.push(`/api/takes/${take}/audio`, `/api/takes/${take}`);
  const statuses = (cache: RequestCache) =>
    there.evaluate(
      ([all, how]) => Promise.all((all as string[]).map(async (path) => (await fetch(path, { cache: how as RequestCache })).status)),
      [paths, cache] as const,
    );
  expect(new Set(await statuses('default'))).toEqual(new Set([200]));
  await there.getByRole('button', { name: COACH.name }).click();
  await there.getByRole('menuitem', { name: 'Sign out' }).click();
  await expect(there.getByRole('heading', { name: 'Sign in' })).toBeVisible();
  expect(new Set(await statuses('force-cache'))).toEqual(new Set([401]));
  await page.request.delete(`/api/singers/${id}`, { data: { name: 'Tam Weir' } });
  await context.close();
});

test('another’s address for this machine is refused, pages and routes alike', async ({ baseURL }) => {
  const { hostname, port } = new URL(baseURL!);
  const statusAt = (path: string, host: string) =>
    new Promise<number>((done, fail) => {
      ask({ hostname, port, path, headers: { host } }, (answer) => {
        answer.resume();
        done(answer.statusCode!);
      })
        .on('error', fail)
        .end();
    });
  for (const path of ['/sign-in', '/api/songs/x/singers']) {
    expect(await statusAt(path, 'rebind.evil.com')).toBe(421);
    expect(await statusAt(path, `127.0.0.1:${port}`)).not.toBe(421);
  }
});

test('a place to go to after signing in is one of ours, however it is written', async ({ browser, baseURL }) => {
  for (const to of ['/%09/evil.example/phish', '/%0a/evil.example', '/%09%5Cevil.example', '//evil.example']) {
    const context = await browser.newContext({ baseURL, storageState: NOBODY });
    const page = await context.newPage();
    await page.goto(`/sign-in?to=${to}`);
    await signIn(page, COACH);
    await expect(page.getByRole('button', { name: COACH.name })).toBeVisible();
    expect(new URL(page.url()).origin).toBe(baseURL);
    await context.close();
  }
});

test('wrong links by the hundred keep out nobody with a right one', async ({ baseURL, request }) => {
  const made = await request.post('/api/singers', { data: { name: 'Pell Sander', part: '', voiceType: 'tenor', note: '' } });
  const { id } = (await made.json()) as { id: string };
  const { address } = (await (await request.post(`/api/singers/${id}/link`)).json()) as { address: string };
  // From a network of its own.
  const stranger = await http.newContext({
    baseURL,
    storageState: NOBODY,
    extraHTTPHeaders: { 'x-forwarded-for': `10.1.${Date.now() % 250}.1` },
  });
  const wrong = await Promise.all(
    Array.from({ length: 80 }, () => stranger.post(`/api/p/${'x'.repeat(43)}/entries`, { data: { entries: [] } })),
  );
  expect(new Set(wrong.map((a) => a.status()))).toEqual(new Set([404, 429]));
  const { pathname } = new URL(address);
  expect((await stranger.get(pathname)).status()).toBe(200);
  expect((await stranger.post(`/api${pathname}/entries`, { data: { entries: [] } })).status()).toBe(200);
  await stranger.dispose();
  await request.delete(`/api/singers/${id}`, { data: { name: 'Pell Sander' } });
});
