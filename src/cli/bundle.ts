// A studio as one file and back: bundle export FILE, bundle import FILE [--dry-run], each with [--studio NAME].
import type { Id } from '../core/format/id';
import { createWriteStream, existsSync, renameSync, rmSync } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { parseArgs } from 'node:util';
import { bringIn, bundleOf } from '../studio/bundle-file';
import { Refusal } from '../studio/refusal';
import { inStudio, pool, studioIds } from '../data/client';
import { studioSettings } from '../data/studios';
import { bundleSchema } from './bundle-schema';

const say = (text: string) => process.stderr.write(`${text}\n`);

async function exportTo(studioId: Id<'studio'>, path: string): Promise<void> {
  if (existsSync(path)) throw new Refusal('unfit', `${path} is there already: give another name.`);
  const { stream, singers, takes } = await bundleOf(studioId);
  const aside = `${path}.part`;
  try {
    await pipeline(Readable.fromWeb(stream as never), createWriteStream(aside, { mode: 0o600 }));
    renameSync(aside, path);
  } finally {
    rmSync(aside, { force: true });
  }
  say(`${singers} singers and ${takes} takes are in ${path}.`);
}

async function importFrom(studioId: Id<'studio'>, path: string, dryRun: boolean): Promise<void> {
  if (!existsSync(path)) throw new Refusal('unfit', `There is no file ${path}.`);
  const { tables, recordings, settings } = await bringIn(studioId, path, dryRun);
  for (const { name, fresh, known } of tables) say(`${name}: ${fresh} new${known ? `, ${known} there already` : ''}`);
  say(`recordings: ${recordings} new`);
  if (settings) say('settings: name, school and how long recordings are kept');
  if (dryRun) say('A dry run: nothing was changed.');
}

/** The studio of a name; without a name the first. */
async function studioCalled(name: string | undefined): Promise<Id<'studio'>> {
  const ids = await studioIds();
  if (name === undefined) return ids[0];
  for (const id of ids) if ((await inStudio(id, studioSettings)).name === name) return id;
  throw new Refusal('unfit', `There is no studio called ${name}.`);
}

async function main() {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { 'dry-run': { type: 'boolean', default: false }, studio: { type: 'string' } },
  });
  const [what, path] = positionals;
  if (what === 'schema') return void process.stdout.write(`${JSON.stringify(bundleSchema(), null, 2)}\n`);
  if (what === 'export' && path) await exportTo(await studioCalled(values.studio), path);
  else if (what === 'import' && path) await importFrom(await studioCalled(values.studio), path, values['dry-run']);
  else throw new Refusal('unfit', 'Say what to do: npm run bundle -- export FILE, or npm run bundle -- import FILE [--dry-run]');
  await pool().end();
}

main().catch((error: Error) => {
  say(error instanceof Refusal ? error.message : (error.stack ?? error.message));
  process.exit(1);
});
