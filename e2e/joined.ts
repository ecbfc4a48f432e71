import { spawn } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { databaseUrls } from '../bin/lib/postgres.mjs';
import { COPY } from './browser';

export interface Joined {
  pid: number;
  /** What it has said so far. */
  said(): string;
  stop(): Promise<void>;
}

/** Begin one part of Wendel on a database that is looked after elsewhere (host:port), with the secrets of the first machine. */
export async function joinPart(of: {
  role: 'web' | 'worker';
  port?: number;
  database: string;
  secrets: string;
  env?: Record<string, string>;
}): Promise<Joined> {
  const child = spawn(process.execPath, ['bin/start.mjs', '--role', of.role], {
    stdio: ['ignore', 'pipe', 'pipe'],
    detached: true,
    env: {
      ...process.env,
      PORT: String(of.port ?? 3000),
      WENDEL_DATA: mkdtempSync(join(tmpdir(), 'wendel-joined-')),
      WENDEL_BUILD: '.next-test',
      WENDEL_SECRETS: of.secrets,
      DATABASE_URL: `postgres://${of.database}/wendel`,
      WENDEL_SIGN_UP: 'open',
      ...of.env,
    },
  });
  let said = '';
  const ready = new Promise<void>((done, fail) => {
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (bytes: Buffer) => {
        said += bytes;
        if (/is ready|at work/.test(said)) done();
      });
    child.once('exit', () => fail(new Error(said)));
  });
  const gone = new Promise<void>((done) => child.once('exit', () => done()));
  await ready;
  return { pid: child.pid!, said: () => said, stop: () => (child.kill('SIGINT'), gone) };
}

/** One part more on this copy's database, as another machine has it: nothing of the first's but its secrets and where the database is. */
export const joinCopy = (role: 'web' | 'worker', port = 3000, env: Record<string, string> = {}) =>
  joinPart({ role, port, database: new URL(databaseUrls(COPY.data).appUrl).host, secrets: join(COPY.data, 'settings.json'), env });
