// The whole studio as one file and back: bundle export FILE, bundle import FILE [--dry-run].
import { downloadZip } from 'client-zip';
import { createHash } from 'node:crypto';
import { createWriteStream, existsSync, renameSync, rmSync } from 'node:fs';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { promisify } from 'node:util';
import yauzl, { Entry, ZipFile } from 'yauzl';
import { z } from 'zod';
import { ENGINE } from '../core/engine';
import { bundleSchema } from './bundle-schema';
import { BUNDLED, BundleRow, insertRows, rowsOf, silentTakes } from '../data/bundle';
import { inStudio, pool, StudioTx, studioIds } from '../data/client';
import { studioSettings, updateStudio } from '../data/studios';
import { audioPart, insertAudioPart } from '../data/takes';
import { SCHOOL_IDS } from '../core/map/schools';

const VERSION = 1;
const PART_BYTES = 1_000_000;
const say = (text: string) => process.stderr.write(`${text}\n`);

class BundleError extends Error {}

const Rows = z.array(z.record(z.string(), z.unknown()));
/** What `wendel.json` holds, as far as it is read here; docs/bundle.schema.json has every column. */
export const Bundle = z.object({
  wendel: z.literal('studio'),
  version: z.number().int(),
  made: z.iso.datetime(),
  engine: z.string(),
  studio: z.object({ name: z.string(), school: z.enum(SCHOOL_IDS) }),
  tables: z.object(Object.fromEntries(BUNDLED.map((t) => [t, Rows])) as Record<(typeof BUNDLED)[number], typeof Rows>),
});
type Bundle = z.infer<typeof Bundle>;

/** `hashes.json`: SHA-256 of every other file, by its name. */
const Hashes = z.record(z.string(), z.string().regex(/^[0-9a-f]{64}$/));

const wavName = (takeId: unknown) => `takes/${String(takeId)}.wav`;

async function exportTo(studioId: string, path: string): Promise<void> {
  if (existsSync(path)) throw new BundleError(`${path} is there already: give another name.`);
  const bundle = await inStudio(studioId, async (tx): Promise<Bundle> => {
    const tables = {} as Bundle['tables'];
    for (const table of BUNDLED) tables[table] = await rowsOf(tx, table);
    return { wendel: 'studio', version: VERSION, made: new Date().toISOString(), engine: ENGINE, studio: await studioSettings(tx), tables };
  });
  const hashes: Record<string, string> = {};
  async function* sound(takeId: string, name: string) {
    const hash = createHash('sha256');
    for (let part = 0; ; part++) {
      const bytes = await inStudio(studioId, (tx) => audioPart(tx, takeId, part));
      if (!bytes) break;
      hash.update(bytes);
      yield bytes;
    }
    hashes[name] = hash.digest('hex');
  }
  async function* files() {
    const text = JSON.stringify(bundle, null, 1);
    hashes['wendel.json'] = createHash('sha256').update(text).digest('hex');
    yield { name: 'wendel.json', input: text };
    for (const take of bundle.tables.take) {
      const name = wavName(take.id);
      yield { name, input: Readable.toWeb(Readable.from(sound(String(take.id), name))) as ReadableStream<Uint8Array> };
    }
    yield { name: 'hashes.json', input: JSON.stringify(hashes, null, 1) };
  }
  const aside = `${path}.part`;
  try {
    await pipeline(Readable.fromWeb(downloadZip(files()).body! as never), createWriteStream(aside));
    renameSync(aside, path);
  } finally {
    rmSync(aside, { force: true });
  }
  say(`${bundle.tables.singer.length} singers and ${bundle.tables.take.length} takes are in ${path}.`);
}

const openZip = promisify(yauzl.open) as (path: string, options: yauzl.Options) => Promise<ZipFile>;

/** The files of a bundle by name. */
async function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  const entries = new Map<string, Entry>();
  zip.readEntry();
  zip.on('entry', (entry: Entry) => {
    entries.set(entry.fileName, entry);
    zip.readEntry();
  });
  await new Promise<void>((resolve, reject) => zip.once('end', resolve).once('error', reject));
  return entries;
}

async function importFrom(studioId: string, path: string, dryRun: boolean): Promise<void> {
  let zip: ZipFile;
  try {
    zip = await openZip(path, { lazyEntries: true, autoClose: false });
  } catch {
    throw new BundleError(`${path} is no bundle: it can't be read as a ZIP file.`);
  }
  const entries = await entriesOf(zip);
  const open = promisify(zip.openReadStream.bind(zip)) as (entry: Entry) => Promise<Readable>;
  const bytesOf = async (name: string): Promise<Buffer> => {
    const entry = entries.get(name);
    if (!entry) throw new BundleError(`${name} is missing in the bundle: it was not made to its end. Nothing was changed.`);
    const parts: Buffer[] = [];
    for await (const part of await open(entry)) parts.push(part as Buffer);
    return Buffer.concat(parts);
  };
  const parsed = <T>(schema: z.ZodType<T>, name: string, bytes: Buffer): T => {
    try {
      return schema.parse(JSON.parse(bytes.toString()));
    } catch (error) {
      throw new BundleError(`${name} is not what a bundle holds (${(error as Error).message.slice(0, 200)}). Nothing was changed.`);
    }
  };
  const hashes = parsed(Hashes, 'hashes.json', await bytesOf('hashes.json'));
  const text = await bytesOf('wendel.json');
  if (createHash('sha256').update(text).digest('hex') !== hashes['wendel.json'])
    throw new BundleError('wendel.json was changed after it was made (its hash differs). Nothing was changed.');
  const bundle = parsed(Bundle, 'wendel.json', text);
  if (bundle.version > VERSION)
    throw new BundleError(
      `This bundle is of a newer Wendel (version ${bundle.version}; this one reads ${VERSION}): bring Wendel up to date first.`,
    );

  try {
    await inStudio(studioId, async (tx) => {
      for (const table of BUNDLED) {
        const rows = bundle.tables[table];
        const fresh = await insertRows(tx, table, rows);
        if (rows.length) say(`${table}: ${fresh} new${fresh < rows.length ? `, ${rows.length - fresh} there already` : ''}`);
      }
      const known = new Map(bundle.tables.take.map((t) => [String(t.id), t]));
      let sounds = 0;
      for (const id of await silentTakes(tx)) {
        const take = known.get(id);
        if (!take) continue;
        await readSound(tx, take, entries.get(wavName(id)), open, hashes[wavName(id)]);
        sounds++;
      }
      say(`recordings: ${sounds} new`);
      await updateStudio(tx, bundle.studio);
      if (dryRun) throw new DryRun();
    });
  } catch (error) {
    if (!(error instanceof DryRun)) throw error;
    say('A dry run: nothing was changed.');
  } finally {
    zip.close();
  }
}

class DryRun extends Error {}

/** A recording out of the bundle into the database, piece by piece; its hash must be the take's own. */
async function readSound(
  tx: StudioTx,
  take: BundleRow,
  entry: Entry | undefined,
  open: (entry: Entry) => Promise<Readable>,
  hash: string | undefined,
): Promise<void> {
  if (!entry) throw new BundleError(`The recording of take ${String(take.id)} is missing in the bundle. Nothing was changed.`);
  const heard = createHash('sha256');
  let pending = Buffer.alloc(0);
  let part = 0;
  for await (const piece of await open(entry)) {
    heard.update(piece as Buffer);
    pending = Buffer.concat([pending, piece as Buffer]);
    while (pending.length >= PART_BYTES) {
      await insertAudioPart(tx, String(take.id), part++, pending.subarray(0, PART_BYTES));
      pending = pending.subarray(PART_BYTES);
    }
  }
  if (pending.length) await insertAudioPart(tx, String(take.id), part, pending);
  const digest = heard.digest('hex');
  if (digest !== take.sha256 || digest !== hash)
    throw new BundleError(`The recording of take ${String(take.id)} was changed (its hash differs). Nothing was changed.`);
}

async function main() {
  const [what, path, flag] = process.argv.slice(2);
  if (what === 'schema') return void process.stdout.write(`${JSON.stringify(bundleSchema(), null, 2)}\n`);
  const [studioId] = await studioIds();
  if (what === 'export' && path) await exportTo(studioId, path);
  else if (what === 'import' && path) await importFrom(studioId, path, flag === '--dry-run');
  else throw new BundleError('Say what to do: npm run bundle -- export FILE, or npm run bundle -- import FILE [--dry-run]');
  await pool().end();
}

main().catch((error: Error) => {
  say(error instanceof BundleError ? error.message : (error.stack ?? error.message));
  process.exit(1);
});
