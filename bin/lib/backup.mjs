// The whole database into one file and back, by PostgreSQL's own pg_dump and pg_restore.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { databaseUrls, ensureRoles, foreignServer, removeCluster, serverBinaries, startPostgres } from './postgres.mjs';
import { decryptFile, encryptFile, isEncrypted } from './encrypted.mjs';
import { running } from './project.mjs';

/** Run one of PostgreSQL's programs on a database; its password goes by the environment, not where others see it. */
function run(program, url, args) {
  const { hostname, port, username, password, pathname } = new URL(url);
  const done = spawnSync(
    join(serverBinaries(), program),
    ['-h', hostname, '-p', port || '5432', '-U', username, '-d', decodeURIComponent(pathname.slice(1)), ...args],
    { encoding: 'utf8', env: { ...process.env, PGPASSWORD: decodeURIComponent(password) } },
  );
  if (done.error || done.status !== 0) throw new Error(`${program} did not finish: ${done.error?.message ?? done.stderr.trim()}`);
}

/** Work with the database of a data folder, as its owner and as the application: the one that is being served, or one started for this. */
export async function withDatabase(data, work) {
  const as = ({ ownerUrl, appUrl, doorUrl }) => work({ WENDEL_OWNER_URL: ownerUrl, WENDEL_APP_URL: appUrl, WENDEL_DOOR_URL: doorUrl });
  if (process.env.DATABASE_URL) return as(await foreignServer(process.env.DATABASE_URL, data));
  if (running(data)) return as(databaseUrls(data));
  const server = await startPostgres(data);
  try {
    await ensureRoles(server);
    return await as(server);
  } finally {
    server.stop();
  }
}

/** Tables whose rows are keys that work (sessions, new passwords, offers, messages that carry such): not in a backup. */
const KEYS = ['session', 'verification', 'invite', 'message', 'tries'];

/** Beside a backup: what lay in the sound store, if any did. */
const soundBeside = (path) => `${path}.sound`;

/**
 * Write everything but keys, recordings included, to a file, encrypted if a password is given; made aside and renamed, so that a file of
 * that name is whole. What lies in the sound store goes into a file beside it (`saveSound`). The files and how many bytes they have.
 */
export async function backUp(data, file, saveSound, password) {
  const path = resolve(file);
  for (const there of [path, soundBeside(path)])
    if (existsSync(there)) throw new Error(`${there} is there already: give another name, so that no backup is written over.`);
  if (!process.env.DATABASE_URL && !running(data) && !existsSync(join(data, 'settings.json')))
    throw new Error(`There is nothing to back up in ${data} yet: start Wendel once with npm start.`);
  mkdirSync(dirname(path), { recursive: true });
  const aside = `${path}.part`;
  const parts = [
    [soundBeside(aside), soundBeside(path)],
    [aside, path],
  ];
  // Whoever can read the file has every singer's voice: nobody but its owner may.
  const mask = process.umask(0o077);
  try {
    const without = KEYS.map((table) => `--exclude-table-data=public.${table}`);
    await withDatabase(data, (urls) => {
      run('pg_dump', urls.WENDEL_OWNER_URL, ['--format=custom', ...without, `--file=${aside}`]);
      saveSound(urls, soundBeside(aside));
    });
    const made = parts.filter(([from]) => existsSync(from));
    if (password) for (const [from] of made) await encryptFile(from, password);
    for (const [from, to] of made) renameSync(from, to);
    return { files: made.map(([, to]) => to).reverse(), bytes: made.reduce((sum, [, to]) => sum + statSync(to).size, 0) };
  } finally {
    process.umask(mask);
    for (const [from] of parts) rmSync(from, { force: true });
  }
}

/**
 * Put a backup in the place of what a data folder holds, bring it to this version's schema by `migrate`, and put what lay in the sound store
 * and is in the file beside it into the database (`loadSound`).
 */
export async function restore(data, file, { migrate, loadSound }, password) {
  const given = resolve(file);
  if (!existsSync(given)) throw new Error(`There is no file ${given}.`);
  if (process.env.DATABASE_URL) throw new Error('A server of your own is restored with its own tools: pg_restore reads the file.');
  if (running(data)) throw new Error('Wendel is running on this data: stop it (Ctrl-C), then restore.');
  const opened = [];
  const open = async (path) => {
    if (!isEncrypted(path)) return path;
    opened.push(await decryptFile(path, password));
    return opened.at(-1);
  };
  try {
    const path = await open(given);
    const sound = existsSync(soundBeside(given)) ? await open(soundBeside(given)) : null;
    await restoreFrom(data, path, (server) => {
      migrate(server);
      if (sound) loadSound(server, sound);
    });
  } finally {
    for (const path of opened) rmSync(path, { force: true });
  }
}

async function restoreFrom(data, path, bringUp) {
  // A file that isn't a backup must not cost what is there.
  const listed = spawnSync(join(serverBinaries(), 'pg_restore'), ['--list', path], { encoding: 'utf8' });
  if (listed.status !== 0 || !/ TABLE public singer /.test(listed.stdout))
    throw new Error(`${path} is not a backup of Wendel: nothing was changed.`);
  removeCluster(data);
  const server = await startPostgres(data);
  try {
    await ensureRoles(server);
    run('pg_restore', server.ownerUrl, ['--no-owner', '--exit-on-error', path]);
    bringUp(server);
  } finally {
    server.stop();
  }
}
