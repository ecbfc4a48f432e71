import { downloadZip } from 'client-zip';
import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { promisify } from 'node:util';
import Papa from 'papaparse';
import yauzl, { Entry, ZipFile } from 'yauzl';
import { z } from 'zod';
import { ENGINE } from '../core/engine';
import type { Exercise } from '../core/exercise/types';
import { toMidi } from '../core/format/midi';
import { MAX_TAKE_BYTES } from '../core/format/wav';
import { SCHOOL_IDS } from '../core/map/schools';
import { Bundled, BUNDLED, BundleRow, insertRows, rowsOf, silentTakes } from './bundle';
import { inStudio, StudioTx } from './client';
import { studioSettings, updateStudio } from './studios';
import { audioPart, insertAudioPart } from './takes';

const VERSION = 1;
const PART_BYTES = 1_000_000;
/** Keys a tune is written in where no voice gives any: five from A3. */
const TUNE_KEYS = [57, 58, 59, 60, 61];

/** Why a bundle can't be read, in words for its owner. */
export class BundleError extends Error {}

const Rows = z.array(z.record(z.string(), z.unknown()));
/** What `wendel.json` holds, as far as it is read here; docs/bundle.schema.json has every column. */
const Bundle = z.object({
  wendel: z.literal('studio'),
  version: z.number().int(),
  made: z.iso.datetime(),
  engine: z.string(),
  studio: z.object({ name: z.string(), school: z.enum(SCHOOL_IDS), keepMonths: z.number().int().min(1).max(120).nullable().default(null) }),
  tables: z.object(Object.fromEntries(BUNDLED.map((t) => [t, Rows])) as Record<Bundled, typeof Rows>),
});
type Bundle = z.infer<typeof Bundle>;

/** `hashes.json`: SHA-256 of every other file, by its name. */
const Hashes = z.record(z.string(), z.string().regex(/^[0-9a-f]{64}$/));

const wavName = (takeId: unknown) => `takes/${String(takeId)}.wav`;
const sha256 = (bytes: string | Uint8Array) => createHash('sha256').update(bytes).digest('hex');

/** What is easier read in a table or played: made from the rows, and not read when a bundle is brought in. */
function extras({ tables }: Bundle): { name: string; input: string | Uint8Array }[] {
  // A word that begins like a formula is none: spreadsheets would run it.
  const csv = (name: string, rows: BundleRow[]) => ({ name: `csv/${name}.csv`, input: Papa.unparse(rows, { escapeFormulae: true }) });
  const names = new Map(tables.singer.map((s) => [s.id, s.name]));
  const plain = (row: BundleRow) =>
    Object.fromEntries(Object.entries(row).filter(([, value]) => typeof value !== 'object' || value === null));
  return [
    csv('singers', tables.singer.map(plain)),
    csv(
      'takes',
      tables.take.map((t) => ({ singer: names.get(t.singer_id), ...plain(t) })),
    ),
    csv(
      'practice',
      tables.practice.map((p) => ({ singer: names.get(p.singer_id), ...plain(p), ...plain(p.what as BundleRow) })),
    ),
    ...tables.exercise.map(({ id, exercise }) => {
      const own = exercise as Exercise;
      return { name: `midi/${String(id)}.mid`, input: toMidi(own, TUNE_KEYS, own.tempo[1]) };
    }),
  ];
}

/** A studio as a ZIP file, streamed: its rows, its recordings, tables and tunes, and a hash of each file. */
export async function bundleOf(studioId: string): Promise<{ stream: ReadableStream<Uint8Array>; singers: number; takes: number }> {
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
    for (const file of [{ name: 'wendel.json', input: JSON.stringify(bundle, null, 1) }, ...extras(bundle)]) {
      hashes[file.name] = sha256(file.input);
      yield file;
    }
    for (const take of bundle.tables.take.filter((t) => !t.sound_removed_at)) {
      const name = wavName(take.id);
      yield { name, input: Readable.toWeb(Readable.from(sound(String(take.id), name))) as ReadableStream<Uint8Array> };
    }
    yield { name: 'hashes.json', input: JSON.stringify(hashes, null, 1) };
  }
  return { stream: downloadZip(files()).body!, singers: bundle.tables.singer.length, takes: bundle.tables.take.length };
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

export interface BroughtIn {
  /** For each table that holds rows: how many were new, and how many there already. */
  tables: { name: Bundled; fresh: number; known: number }[];
  recordings: number;
}

/** Ends the transaction of a dry run. */
class DryRun extends Error {}

/**
 * Bring a bundle's file into a studio, all of it or nothing; what is there already stays as it is. `dryRun`: say what would come and
 * change nothing. @throws BundleError in words for its owner.
 */
export async function bringIn(studioId: string, path: string, dryRun: boolean, actor?: string): Promise<BroughtIn> {
  let zip: ZipFile;
  let entries: Map<string, Entry>;
  try {
    zip = await openZip(path, { lazyEntries: true, autoClose: false });
    entries = await entriesOf(zip);
  } catch {
    throw new BundleError('This is no bundle: it can’t be read as a ZIP file. Nothing was changed.');
  }
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
  const done: BroughtIn = { tables: [], recordings: 0 };
  try {
    const hashes = parsed(Hashes, 'hashes.json', await bytesOf('hashes.json'));
    const text = await bytesOf('wendel.json');
    if (sha256(text) !== hashes['wendel.json'])
      throw new BundleError('wendel.json was changed after it was made (its hash differs). Nothing was changed.');
    const bundle = parsed(Bundle, 'wendel.json', text);
    if (bundle.version > VERSION)
      throw new BundleError(
        `This bundle is of a newer Wendel (version ${bundle.version}; this one reads ${VERSION}): bring Wendel up to date first.`,
      );
    await inStudio(
      studioId,
      async (tx) => {
        const empty = (await rowsOf(tx, 'singer')).length === 0;
        for (const name of BUNDLED) {
          const rows = bundle.tables[name];
          const fresh = await insertRows(tx, name, rows);
          if (rows.length) done.tables.push({ name, fresh, known: rows.length - fresh });
        }
        const known = new Map(bundle.tables.take.map((t) => [String(t.id), t]));
        for (const id of await silentTakes(tx)) {
          const take = known.get(id);
          if (!take) continue;
          await readSound(tx, take, entries.get(wavName(id)), open, hashes[wavName(id)]);
          done.recordings++;
        }
        // Name, school and how long sound is kept are the studio's own, once anybody is in it: an old bundle must not end them.
        if (empty) await updateStudio(tx, bundle.studio);
        if (dryRun) throw new DryRun();
      },
      { actor },
    );
  } catch (error) {
    if (!(error instanceof DryRun)) throw error;
  } finally {
    zip.close();
  }
  return done;
}

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
  let bytes = 0;
  for await (const piece of await open(entry)) {
    bytes += (piece as Buffer).length;
    // However small it was packed.
    if (bytes > MAX_TAKE_BYTES)
      throw new BundleError(`The recording of take ${String(take.id)} is larger than ${MAX_TAKE_BYTES / 1e6} MB. Nothing was changed.`);
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
