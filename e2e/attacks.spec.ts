import { expect, test } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { request as ask } from 'node:http';
import { connect } from 'node:net';
import { signInOnce } from './browser';

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
  for (const { socket, answer } of lines) {
    expect(await answer).toMatch(/^HTTP\/1.1 408/);
    socket.destroy();
  }
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
