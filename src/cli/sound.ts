// Sound that lies in the sound store: sound save FILE (all of it into a ZIP file, beside a backup), sound load FILE (from one into the
// database), sound home (from the store into the database).
import type { Id } from '../core/format/id';
import { downloadZip } from 'client-zip';
import { once } from 'node:events';
import { createWriteStream } from 'node:fs';
import type { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import yauzl, { Entry, ZipFile } from 'yauzl';
import { inStudio, pool, studioIds } from '../data/client';
import { bytesOf } from '../data/sound-store';
import { bringHome, storedKeys } from '../data/take-audio';

const say = (text: string) => process.stderr.write(`${text}\n`);

const studioOf = (key: string) => key.split('/')[0] as Id<'studio'>;

/** PostgreSQL's codes (undefined_column, undefined_function): a database that this version never served has no sound elsewhere. */
const NEVER_SERVED = ['42703', '42883'];

async function keysOfAll(): Promise<string[]> {
  try {
    const keys: string[] = [];
    for (const studioId of await studioIds()) keys.push(...(await inStudio(studioId, storedKeys)));
    return keys;
  } catch (error) {
    // Drizzle puts its own error around the database's.
    const { code, cause } = error as { code?: string; cause?: { code?: string } };
    if (NEVER_SERVED.includes(cause?.code ?? code ?? '')) return [];
    throw error;
  }
}

/** Pieces that lie in the store. One that is deleted while this goes on is left out. */
async function* stored(keys: readonly string[]): AsyncGenerator<{ name: string; input: Buffer }> {
  for (const key of keys) {
    try {
      yield { name: key, input: await bytesOf({ storedAs: key }) };
    } catch (error) {
      if ((await inStudio(studioOf(key), storedKeys)).includes(key)) throw error;
    }
  }
}

/** All that lies in the store, as a file; none where nothing does. */
async function save(path: string): Promise<void> {
  const keys = await keysOfAll();
  if (keys.length > 0) await pipeline(downloadZip(stored(keys)).body!, createWriteStream(path, { mode: 0o600 }));
}

const openZip = promisify(yauzl.open) as (path: string, options: yauzl.Options) => Promise<ZipFile>;

/** The files of a ZIP file, one after another. */
async function* filesOf(path: string): AsyncGenerator<{ name: string; input: Buffer }> {
  const zip = await openZip(path, { lazyEntries: true });
  const open = promisify(zip.openReadStream.bind(zip)) as (entry: Entry) => Promise<Readable>;
  for (let n = 0; n < zip.entryCount; n++) {
    const next = once(zip, 'entry') as Promise<[Entry]>;
    zip.readEntry();
    const [entry] = await next;
    yield { name: entry.fileName, input: await buffer(await open(entry)) };
  }
}

/** Put pieces into the database. How many. */
async function takeHome(pieces: AsyncIterable<{ name: string; input: Buffer }>): Promise<number> {
  let n = 0;
  for await (const { name, input } of pieces) {
    await inStudio(studioOf(name), (tx) => bringHome(tx, { storedAs: name, bytes: input }));
    n++;
  }
  return n;
}

async function main() {
  const [what, path] = process.argv.slice(2);
  if (what === 'save' && path) await save(path);
  else if (what === 'load' && path)
    say(`${await takeHome(filesOf(path))} pieces of sound that lay in the sound store are in the database.`);
  else if (what === 'home') say(`${await takeHome(stored(await keysOfAll()))} pieces of sound came back from the sound store.`);
  else throw new Error('Say what to do: npm run sound -- home');
  await pool().end();
}

main().catch((error: Error) => {
  say(error.message);
  process.exit(1);
});
