#!/usr/bin/env node
// npm start: everything from a fresh clone to a served application. Ctrl-C stops all it started.
// npm start -- --role web|worker: one part more on a database that is looked after elsewhere (docs/operations.md).
import { existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensurePackages } from './lib/packages.mjs';
import { checkNode, command, running, say, stopLeftParts } from './lib/project.mjs';

const dev = process.argv.includes('--dev');
const fresh = process.argv.includes('--fresh');
const ROLES = ['all', 'web', 'worker'];
const role = process.argv.includes('--role') ? process.argv[process.argv.indexOf('--role') + 1] : 'all';

const MOST_WEB_PROCESSES = 32;

/** A setting that is a whole number from 1 on. @throws Error that says what it may be. */
function numberIn(name, usual, most, hint = '') {
  const text = process.env[name] ?? usual;
  const number = Number(text);
  if (!Number.isInteger(number) || number < 1 || number > most)
    throw new Error(`${name} is "${text}": set it to a number from 1 to ${most}${hint}.`);
  return number;
}

/** A store that is half set would take no sound, and say so by the way only. @throws Error that says what is missing. */
function checkSoundStore() {
  const { WENDEL_SOUND_STORE: address, WENDEL_SOUND_STORE_KEY: key, WENDEL_SOUND_STORE_SECRET: secret } = process.env;
  if (!address) return;
  if (!/^https?:\/\/[^/]+\/./.test(address))
    throw new Error(`WENDEL_SOUND_STORE is "${address}": set it to the address of a bucket, as https://s3.example.org/choir.`);
  if (!key || !secret) throw new Error('WENDEL_SOUND_STORE is set: set WENDEL_SOUND_STORE_KEY and WENDEL_SOUND_STORE_SECRET as well.');
}

/** One start per data folder: two would share one database cluster. */
async function claim(data) {
  const path = join(data, 'running.json');
  const other = running(data);
  if (other)
    throw new Error(
      `Wendel is already running with this data at ${other.url} (process ${other.pid}). Use that one, stop it with Ctrl-C, or set WENDEL_DATA to another folder.`,
    );
  if (existsSync(path)) {
    say('The last start was interrupted; carrying on from what it left.');
    await stopLeftParts(path);
  }
  return (url, parts = []) => writeFileSync(path, JSON.stringify({ pid: process.pid, url, parts: parts.map((p) => p.pid) }));
}

command(async () => {
  checkNode();
  if (!ROLES.includes(role)) throw new Error(`There is no role ${role}: take one of ${ROLES.join(', ')}.`);
  const port = numberIn('PORT', '3000', 65535);
  const processes = numberIn('WENDEL_WEB_PROCESSES', '1', MOST_WEB_PROCESSES, ', about one for each core');
  checkSoundStore();
  const url = `http://localhost:${port}`;
  ensurePackages();
  const { dataFolder, ensureRoles, foreignServer, joinedServer, removeCluster, startPostgres } = await import('./lib/postgres.mjs');
  const { ensureAssets, ensureBuild, ensurePrograms } = await import('./lib/build.mjs');
  const { portTaken, runProgram, startWeb, startWorker, waitForAnswer } = await import('./lib/run.mjs');
  const { supervise, watchDatabase } = await import('./lib/supervise.mjs');

  const data = dataFolder();
  try {
    mkdirSync(data, { recursive: true });
  } catch (error) {
    throw new Error(`The data folder ${data} can't be made (${error.code}): set WENDEL_DATA to a folder you may write to.`);
  }
  const publish = await claim(data);
  if (role !== 'worker' && (await portTaken(port)))
    throw new Error(`Port ${port} is taken by another program. Stop it, or choose another: PORT=${port + 1} npm start`);

  let parts;
  let unwatch = () => {};
  let server;
  let stopping;
  const stop = () =>
    (stopping ??= (async () => {
      unwatch();
      await parts?.stop();
      server?.stop();
      rmSync(join(data, 'running.json'), { force: true });
    })());
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
    process.on(signal, () => {
      if (!stopping) say('\nStopping ...');
      void stop().then(() => process.exit(0));
    });
  publish(url);
  try {
    if (fresh && process.env.DATABASE_URL)
      throw new Error('--fresh would empty the database at DATABASE_URL: drop it yourself if you mean that.');
    if (fresh) removeCluster(data);
    // Ready to be interrupted between steps: each is finished or begun again next time.
    // The first time building and the demo take a minute each: they go on side by side.
    const built = dev ? ensureAssets() : role === 'worker' ? null : ensureBuild();
    built?.catch(() => undefined);
    const programs = await ensurePrograms();
    if (role !== 'all') server = joinedServer(process.env.DATABASE_URL, role);
    else if (process.env.DATABASE_URL) server = await foreignServer(process.env.DATABASE_URL, data);
    else {
      server = await startPostgres(data);
      await ensureRoles(server);
    }
    if (role === 'all') {
      const env = { WENDEL_OWNER_URL: server.ownerUrl, WENDEL_APP_URL: server.appUrl };
      runProgram(programs.migrate, env);
      runProgram(programs.seed, env);
    }
    await built;
    // The running parts get the weaker roles only, and the door's only the part that has a door.
    const running = { WENDEL_APP_URL: server.appUrl, DATABASE_URL: '' };
    const web = {
      ...running,
      WENDEL_DOOR_URL: server.doorUrl,
      WENDEL_SECRET: server.settings.signInSecret,
      WENDEL_OWN_URL: url,
    };
    parts = supervise(
      [
        { role: 'worker', name: 'The analysis', start: () => startWorker(programs.worker, running) },
        { role: 'web', name: 'The web server', start: () => startWeb(port, web, { dev, processes }) },
      ].filter((part) => role === 'all' || role === part.role),
      (processes) => publish(url, processes),
    );
    // A part that joins is ready when it answers; the others may be elsewhere.
    if (role !== 'worker') await waitForAnswer(`http://127.0.0.1:${port}/api/health${role === 'web' ? '?ready' : ''}`, parts.processes());
    unwatch = watchDatabase(server);
    say(
      role === 'worker'
        ? '\nAn analysis more is at work. Ctrl-C stops it.'
        : `\nWendel is ready: ${url}\nThe first time, make an account there. Ctrl-C stops everything.`,
    );
    await parts.failed;
  } catch (error) {
    await stop();
    throw error;
  }
});
