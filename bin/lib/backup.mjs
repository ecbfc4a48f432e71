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

/**
 * Write everything but keys, recordings included, to a file, encrypted if a password is given; made aside and renamed, so that a file of
 * that name is whole. Bytes written.
 */
export async function backUp(data, file, password) {
  const path = resolve(file);
  if (existsSync(path)) throw new Error(`${path} is there already: give another name, so that no backup is written over.`);
  if (!process.env.DATABASE_URL && !running(data) && !existsSync(join(data, 'settings.json')))
    throw new Error(`There is nothing to back up in ${data} yet: start Wendel once with npm start.`);
  mkdirSync(dirname(path), { recursive: true });
  const aside = `${path}.part`;
  // Whoever can read the file has every singer's voice: nobody but its owner may.
  const mask = process.umask(0o077);
  try {
    const without = KEYS.map((table) => `--exclude-table-data=public.${table}`);
    await withDatabase(data, ({ WENDEL_OWNER_URL }) =>
      run('pg_dump', WENDEL_OWNER_URL, ['--format=custom', ...without, `--file=${aside}`]),
    );
    if (password) await encryptFile(aside, password);
    renameSync(aside, path);
  } finally {
    process.umask(mask);
    rmSync(aside, { force: true });
  }
  return statSync(path).size;
}

/** Put a backup in the place of what a data folder holds, and bring it to this version's schema by `migrate`. */
export async function restore(data, file, migrate, password) {
  const given = resolve(file);
  if (!existsSync(given)) throw new Error(`There is no file ${given}.`);
  if (process.env.DATABASE_URL) throw new Error('A server of your own is restored with its own tools: pg_restore reads the file.');
  if (running(data)) throw new Error('Wendel is running on this data: stop it (Ctrl-C), then restore.');
  const plain = isEncrypted(given) ? await decryptFile(given, password) : null;
  const path = plain ?? given;
  try {
    await restoreFrom(data, path, migrate);
  } finally {
    if (plain) rmSync(plain, { force: true });
  }
}

async function restoreFrom(data, path, migrate) {
  // A file that isn't a backup must not cost what is there.
  const listed = spawnSync(join(serverBinaries(), 'pg_restore'), ['--list', path], { encoding: 'utf8' });
  if (listed.status !== 0 || !/ TABLE public singer /.test(listed.stdout))
    throw new Error(`${path} is not a backup of Wendel: nothing was changed.`);
  removeCluster(data);
  const server = await startPostgres(data);
  try {
    await ensureRoles(server);
    run('pg_restore', server.ownerUrl, ['--no-owner', '--exit-on-error', path]);
    migrate(server);
  } finally {
    server.stop();
  }
}
