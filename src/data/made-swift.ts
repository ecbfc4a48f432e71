// For tests: OpenStack Swift (Debian's packages), an object store by others that speaks S3's protocol, on loopback.
import { ChildProcess, execFileSync, spawn } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import type { AddressInfo } from 'node:net';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { AwsClient } from 'aws4fetch';

const STORES = ['object', 'container', 'account'] as const;
/** How long its four servers may take to begin, ms; a crowded machine is slow. */
const LONGEST_START_MS = 60_000;
const ACCOUNT = { accessKeyId: 'wendel:choir', secretAccessKey: 'lantern-paddle' };

async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await new Promise((done) => server.once('listening', done));
  const { port } = server.address() as AddressInfo;
  await new Promise((done) => server.close(done));
  return port;
}

/** An empty store with one bucket: the settings that open it, the keys in it, and ways to make it be away. */
export async function madeSwift() {
  const folder = mkdtempSync(join(tmpdir(), 'wendel-swift-'));
  const at = (name: string) => join(folder, name);
  const common = (port: number) =>
    `[DEFAULT]\nbind_ip = 127.0.0.1\nbind_port = ${port}\nworkers = 0\nuser = ${userInfo().username}\nswift_dir = ${folder}\nlog_address = ${at('log')}\n`;
  mkdirSync(at('disks/one'), { recursive: true });
  for (const store of STORES) {
    const port = await freePort();
    const build = (...words: string[]) => execFileSync('swift-ring-builder', [at(`${store}.builder`), ...words]);
    build('create', '2', '1', '0');
    build('add', `r1z1-127.0.0.1:${port}/one`, '1');
    build('rebalance');
    writeFileSync(
      at(`${store}.conf`),
      `${common(port)}devices = ${at('disks')}\nmount_check = false\n[pipeline:main]\npipeline = ${store}-server\n[app:${store}-server]\nuse = egg:swift#${store}\n`,
    );
  }
  const port = await freePort();
  const [user, group] = ACCOUNT.accessKeyId.split(':');
  writeFileSync(
    at('proxy.conf'),
    `${common(port)}[pipeline:main]
pipeline = catch_errors cache s3api tempauth proxy-server
[app:proxy-server]
use = egg:swift#proxy
account_autocreate = true
[filter:tempauth]
use = egg:swift#tempauth
user_${user}_${group} = ${ACCOUNT.secretAccessKey} .admin
[filter:s3api]
use = egg:swift#s3api
location = us-east-1
[filter:catch_errors]
use = egg:swift#catch_errors
[filter:cache]
use = egg:swift#memcache
memcache_servers = 127.0.0.1:1
`,
  );
  const servers: { server: ChildProcess; ended: Promise<unknown> }[] = [];
  const begin = (name: string) => {
    const server = spawn(`swift-${name}-server`, [at(`${name}.conf`)], { stdio: ['ignore', 'ignore', 'inherit'] });
    servers.push({ server, ended: new Promise((done) => server.once('exit', done)) });
  };
  const bucket = `http://127.0.0.1:${port}/choir`;
  const client = new AwsClient({ ...ACCOUNT, service: 's3', region: 'us-east-1', retries: 0 });
  /** Until it answers, or doesn't. */
  async function untilUp(): Promise<void> {
    for (const until = Date.now() + LONGEST_START_MS; ; await pause(100)) {
      const answer = await client.fetch(bucket, { method: 'PUT' }).catch(() => null);
      // After a pause the bucket is there already.
      if (answer?.ok || answer?.status === 409) return;
      if (Date.now() > until) throw new Error(`Swift did not begin: ${answer ? `${answer.status} ${await answer.text()}` : 'no answer'}`);
    }
  }
  async function end(): Promise<void> {
    for (const { server } of servers) server.kill('SIGKILL');
    await Promise.all(servers.splice(0).map(({ ended }) => ended));
  }
  async function start(): Promise<void> {
    for (const name of [...STORES, 'proxy']) begin(name);
    await untilUp();
  }
  await start();
  return {
    settings: {
      WENDEL_SOUND_STORE: `${bucket}/voices`,
      WENDEL_SOUND_STORE_KEY: ACCOUNT.accessKeyId,
      WENDEL_SOUND_STORE_SECRET: ACCOUNT.secretAccessKey,
    },
    async keys(): Promise<string[]> {
      const list = await (await client.fetch(`${bucket}?list-type=2`)).text();
      return [...list.matchAll(/<Key>voices\/([^<]+)<\/Key>/g)].map(([, key]) => key);
    },
    /** Put something else under a key. */
    async change(key: string, body: string): Promise<void> {
      await client.fetch(`${bucket}/voices/${key}`, { method: 'PUT', body });
    },
    start,
    end,
    async remove(): Promise<void> {
      await end();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
