import { spawnSync } from 'node:child_process';
import { chmodSync, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Client } from 'pg';
import { ensurePrograms } from '../bin/lib/build.mjs';
import { databaseUrls, startPostgres } from '../bin/lib/postgres.mjs';
import { startWorker, stopPart } from '../bin/lib/run.mjs';
import { BUNDLED } from '../src/data/bundle';
import { madeSwift } from '../src/data/made-swift';
import { COPY, expect, test } from './browser';

/** What every table holds, row for row, and every recording byte for byte, as one hash a table. */
async function contents(url: string): Promise<Record<string, string>> {
  const db = new Client({ connectionString: url });
  await db.connect();
  try {
    const { rows } = await db.query(
      "select table_name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE'",
    );
    const out: Record<string, string> = {};
    for (const { table_name: table } of rows) {
      const { rows: all } = await db.query(
        `select md5(coalesce(string_agg(md5(t::text), '' order by t::text), '')) as hash, count(*)::int as n from ${table} t`,
      );
      out[table] = `${all[0].n} ${all[0].hash}`;
    }
    return out;
  } finally {
    await db.end();
  }
}

type Server = Awaited<ReturnType<typeof startPostgres>>;

/** Work with the database of a data folder that isn't being served. */
async function on<T>(data: string, work: (server: Server) => Promise<T>): Promise<T> {
  const server = await startPostgres(data, { durable: false });
  try {
    return await work(server);
  } finally {
    server.stop();
  }
}

async function rowsOf(url: string, query: string): Promise<Record<string, unknown>[]> {
  const db = new Client({ connectionString: url });
  await db.connect();
  try {
    return (await db.query(query)).rows;
  } finally {
    await db.end();
  }
}

/** Every piece of sound that lies in the database, by its hash. */
const sounds = ({ ownerUrl }: Server) =>
  rowsOf(ownerUrl, 'select take_id, part, sha256(bytes) as hash from take_audio where bytes is not null order by 1, 2');

/** Let an analysis send all sound to a store. How many pieces rest there. */
async function storedBy({ ownerUrl, appUrl }: Server, settings: Record<string, string>): Promise<number> {
  const worker = startWorker((await ensurePrograms()).worker, { ...settings, WENDEL_APP_URL: appUrl });
  try {
    await expect.poll(async () => (await sounds({ ownerUrl } as Server)).length).toBe(0);
  } finally {
    await stopPart(worker);
  }
  return (await rowsOf(ownerUrl, 'select from take_audio where stored_as is not null')).length;
}

test('backed up while it runs, wiped and restored, everything is there: equal rows, byte-equal recordings', async () => {
  test.setTimeout(480_000);
  const folder = mkdtempSync(join(tmpdir(), 'wendel-backup-'));
  chmodSync(folder, 0o755);
  const other = join(folder, 'data');
  const file = join(folder, 'all.backup');
  const run = (name: string, data: string, path: string, env: Record<string, string> = {}) =>
    spawnSync(process.execPath, [`bin/${name}.mjs`, path], {
      encoding: 'utf8',
      env: { ...process.env, WENDEL_DATA: data, DATABASE_URL: '', ...env },
    });
  try {
    const made = run('backup', COPY.data, file);
    expect(made.stderr).toContain('Backed up');
    // Nobody else on the machine may read it.
    expect(statSync(file).mode & 0o077).toBe(0);
    const before: Record<string, string> = {
      ...(await contents(databaseUrls(COPY.data).ownerUrl)),
      // Keys that work are not taken along.
      ...Object.fromEntries(
        ['session', 'verification', 'invite', 'message', 'tries'].map((table) => [table, '0 d41d8cd98f00b204e9800998ecf8427e']),
      ),
    };
    expect(Number(before.take_audio.split(' ')[0])).toBeGreaterThan(10);
    // Over nothing, not over another backup, and not over what is being served.
    expect(run('backup', COPY.data, file).stderr).toContain('is there already');
    expect(run('restore', COPY.data, file).stderr).toContain('is running');
    const restored = run('restore', other, file);
    expect(restored.stderr).toContain('Restored');
    const server = await startPostgres(other, { durable: false });
    try {
      expect(await contents(server.ownerUrl)).toEqual(before);
      // Something else is refused before anything is touched.
      const nothing = join(folder, 'nothing.backup');
      writeFileSync(nothing, 'not a backup');
      expect(run('restore', other, nothing).stderr).toContain('nothing was changed');
      expect(await contents(server.ownerUrl)).toEqual(before);
    } finally {
      server.stop();
    }
    // With a password it opens to that password only.
    const locked = join(folder, 'locked.backup');
    const withPassword = (password: string) => ({ WENDEL_BACKUP_PASSWORD: password });
    expect(run('backup', COPY.data, locked, withPassword('too short')).stderr).toContain('at least 12');
    expect(run('backup', COPY.data, locked, withPassword('otter barge whistle')).stderr).toContain('Backed up');
    expect(readFileSync(locked).includes('PGDMP')).toBe(false);
    expect(run('restore', other, locked).stderr).toContain('is encrypted');
    expect(run('restore', other, locked, withPassword('heron reed lantern')).stderr).toContain('wrong');
    expect(run('restore', other, locked, withPassword('otter barge whistle')).stderr).toContain('Restored');

    // Sound that rests in a store is in a second file, which puts it into the database; and it comes home.
    const swift = await madeSwift();
    try {
      const whole = await on(other, sounds);
      expect(await on(other, (db) => storedBy(db, swift.settings))).toBe(whole.length);
      const both = join(folder, 'both.backup');
      expect(run('backup', other, both, { ...swift.settings, ...withPassword('otter barge whistle') }).stderr).toContain(`${both}.sound`);
      expect(statSync(`${both}.sound`).mode & 0o077).toBe(0);
      const third = join(folder, 'third');
      expect(run('restore', third, both, withPassword('otter barge whistle')).stderr).toContain('Restored');
      expect(await on(third, sounds)).toEqual(whole);
      expect(await on(other, sounds)).not.toEqual(whole);
      expect(run('sound', other, 'home', swift.settings).stderr).toContain(`${whole.length} pieces`);
      expect(await on(other, sounds)).toEqual(whole);
    } finally {
      await swift.remove();
    }
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

test('the studio as one bundle: taken out, looked at in a dry run, brought in elsewhere; a changed one is refused', async () => {
  test.setTimeout(480_000);
  const folder = mkdtempSync(join(tmpdir(), 'wendel-bundle-'));
  chmodSync(folder, 0o755);
  const other = join(folder, 'data');
  const file = join(folder, 'studio.zip');
  const run = (data: string, ...words: string[]) =>
    spawnSync(process.execPath, ['bin/bundle.mjs', ...words], {
      encoding: 'utf8',
      env: { ...process.env, WENDEL_DATA: data, DATABASE_URL: '' },
    });
  // Without the studio's own id and the count of evidence, which are others elsewhere, and without what isn't taken along.
  const kept = [...BUNDLED, 'take_audio'];
  const hashes = async (url: string) => {
    const db = new Client({ connectionString: url });
    await db.connect();
    try {
      const out: Record<string, string> = {};
      for (const table of kept) {
        const { rows } = await db.query(
          `select count(*)::int as n, md5(coalesce(string_agg(md5((to_jsonb(t) - 'studio_id' - 'evidence')::text), '' order by (to_jsonb(t) - 'studio_id' - 'evidence')::text), '')) as hash from ${table} t`,
        );
        out[table] = `${rows[0].n} ${rows[0].hash}`;
      }
      return out;
    } finally {
      await db.end();
    }
  };
  try {
    const made = run(COPY.data, 'export', file);
    expect(made.stderr).toContain('singers and');
    // Another program reads it with the published schema alone, and sees a change.
    const read = (path: string) => spawnSync(process.execPath, ['docs/read-bundle.mjs', path], { encoding: 'utf8' });
    expect(read(file).stdout).toMatch(/Lio Fenn: \d+ takes[\s\S]*every hash holds/);
    const before = await hashes(databaseUrls(COPY.data).ownerUrl);
    expect(run(other, 'import', file, '--dry-run').stderr).toContain('nothing was changed');
    const at = async <T>(work: (url: string) => Promise<T>) => {
      const server = await startPostgres(other, { durable: false });
      try {
        return await work(server.ownerUrl);
      } finally {
        server.stop();
      }
    };
    expect((await at(hashes)).singer).toMatch(/^0 /);
    const changed = join(folder, 'changed.zip');
    const bytes = readFileSync(file);
    // A byte in the middle of the recordings, which lie in the file as they are.
    bytes[Math.floor(bytes.length / 2)] ^= 1;
    writeFileSync(changed, bytes);
    expect(read(changed).status).not.toBe(0);
    expect(run(other, 'import', changed).stderr).toMatch(/changed|checksum|hash/i);
    expect((await at(hashes)).singer).toMatch(/^0 /);
    expect(run(other, 'import', file).stderr).toContain('recordings:');
    expect(await at(hashes)).toEqual(before);
    // Again: nothing is doubled.
    expect(run(other, 'import', file).stderr).toContain('0 new');
    expect(await at(hashes)).toEqual(before);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

test('by the page: the studio is taken out, looked through in a dry run, and nothing that is here is doubled', async ({ page }) => {
  await page.goto('/settings');
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Take the studio out' }).click()]);
  const file = await download.path();
  const choose = page.getByLabel('Bring one in…');
  await choose.setInputFiles({ name: 'words.zip', mimeType: 'application/zip', buffer: Buffer.from('no bundle') });
  await expect(page.getByRole('main').getByRole('alert')).toContainText('This is no bundle');
  // One singer fewer here than in the file.
  const made = await page.request.post('/api/singers', { data: { name: 'Sedge Rowan', voiceType: 'bass' } });
  const { id } = await made.json();
  const again = Promise.all([page.waitForEvent('download'), page.getByRole('link', { name: 'Take the studio out' }).click()]);
  const whole = await (await again)[0].path();
  await page.request.delete(`/api/singers/${id}`, { data: { name: 'Sedge Rowan' } });
  await choose.setInputFiles(whole);
  const said = page.getByTestId('brought-in');
  await expect(said).toContainText(/would bring:.*1 singers/s);
  expect((await page.request.get(`/singers/${id}/map`)).status()).toBe(404);
  await page.getByRole('button', { name: 'Bring it in' }).click();
  await expect(said).toContainText('was brought in:');
  expect((await page.request.get(`/singers/${id}/map`)).status()).toBe(200);
  await choose.setInputFiles(file);
  await expect(said).toContainText(/would bring:.*0 singers/s);
  await page.request.delete(`/api/singers/${id}`, { data: { name: 'Sedge Rowan' } });
});
