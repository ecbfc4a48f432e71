import type { Id } from '../core/format/id';
import { said, Said } from '../core/words/said';
import { downloadZip } from 'client-zip';
import { createHash } from 'node:crypto';
import { Readable } from 'node:stream';
import { promisify } from 'node:util';
import Papa from 'papaparse';
import yauzl, { Entry, ZipFile } from 'yauzl';
import { z } from 'zod';
import type { BroughtIn } from '../contract/answers';
import { ENGINE } from '../core/engine';
import type { Exercise } from '../core/exercise/types';
import { toMidi } from '../core/format/midi';
import { songToMusicXml } from '../core/format/song-musicxml';
import { StudioShape } from '../core/format/studio';
import type { Song } from '../core/song/types';
import { checkLength, HEADER_BYTES, MAX_TAKE_BYTES, SoundFileError, wavLayout } from '../core/format/wav';
import { Bundled, BUNDLED, BundleRow, insertRows, rowsOf, silentTakes } from '../data/bundle';
import { BUNDLE_ROWS } from './bundle-rows';
import { Refusal } from './refusal';
import { inStudio, StudioTx } from '../data/client';
import { enqueueAnalysis } from '../data/queue';
import { studioSettings, updateStudio } from '../data/studios';
import { insertAudioPart, PART_BYTES } from '../data/take-audio';
import { takesToAnalyse } from '../data/takes';
import { wendelIn } from './context';
import { soundOf } from './sound';

const VERSION = 1;
/** Keys a tune is written in where no voice gives any: five from A3. */
const TUNE_KEYS = [57, 58, 59, 60, 61];

/** Most bytes of a file of words in a bundle: a studio of 300 singers with a year of practice has 60 MB. */
const MOST_WORDS = 200e6;
/** Earlier versions took in longer recordings than today's, minutes. */
const MOST_MINUTES = 30;
/** Most files in a bundle, and most rows of a table. */
const MOST_FILES = 200_000;
const MOST_ROWS = 500_000;

const Rows = z.array(z.record(z.string(), z.unknown())).max(MOST_ROWS);
/** Tables that every bundle has; others came later, and bundles of earlier versions are without them. */
const FIRST: readonly Bundled[] = [
  'singer',
  'lesson',
  'protocol',
  'exercise',
  'template',
  'pin',
  'take',
  'analysis',
  'mark',
  'assignment',
  'practice',
];
/** What `wendel.json` holds, as far as it is read here; docs/bundle.schema.json has every column. */
const Bundle = z.object({
  wendel: z.literal('studio'),
  version: z.number().int(),
  made: z.iso.datetime(),
  engine: z.string(),
  studio: z.object({ ...StudioShape.shape, keepMonths: StudioShape.shape.keepMonths.default(null) }),
  tables: z.object(
    Object.fromEntries(BUNDLED.map((t) => [t, FIRST.includes(t) ? Rows : Rows.default([])])) as Record<Bundled, typeof Rows>,
  ),
});
type Bundle = z.infer<typeof Bundle>;

/** `hashes.json`: SHA-256 of every other file, by its name. */
const Hashes = z.record(z.string(), z.string().regex(/^[0-9a-f]{64}$/));

/** Why a bundle is not brought in. */
const unfit = (says: Said) => new Refusal('unfit', says);

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
    ...tables.song.map(({ id, song }) => ({ name: `songs/${String(id)}.musicxml`, input: songToMusicXml(song as Song) })),
  ];
}

/** A studio as a ZIP file, streamed: its rows, its recordings, tables and tunes, and a hash of each file. */
export async function bundleOf(studioId: Id<'studio'>): Promise<{ stream: ReadableStream<Uint8Array>; singers: number; takes: number }> {
  const bundle = await inStudio(studioId, async (tx): Promise<Bundle> => {
    const tables = {} as Bundle['tables'];
    for (const table of BUNDLED) tables[table] = await rowsOf(tx, table);
    return { wendel: 'studio', version: VERSION, made: new Date().toISOString(), engine: ENGINE, studio: await studioSettings(tx), tables };
  });
  const hashes: Record<string, string> = {};
  async function* sound(takeId: Id<'take'>, name: string) {
    const hash = createHash('sha256');
    for await (const bytes of soundOf(wendelIn(studioId), takeId)) {
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
      yield { name, input: Readable.toWeb(Readable.from(sound(takeId(take), name))) as ReadableStream<Uint8Array> };
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
  await new Promise<void>((resolve, reject) => {
    zip.once('end', resolve).once('error', reject);
    zip.on('entry', (entry: Entry) => {
      entries.set(entry.fileName, entry);
      if (entries.size > MOST_FILES) reject(unfit(said('There are more files in the bundle than a studio has. Nothing was changed.')));
      else zip.readEntry();
    });
  });
  return entries;
}

/** A row as it may be stored. @throws Refusal (unfit) that says which is not. */
function fitting(table: Bundled, row: BundleRow, n: number): BundleRow {
  const read = BUNDLE_ROWS[table].safeParse(row);
  // As it was, with what it left out: a row that went out comes in the same.
  if (read.success) return { ...(read.data as BundleRow), ...row };
  const [{ path, message }] = read.error.issues;
  throw unfit(
    said('Row {row} of {table} in the bundle can’t be stored ({what}: {why}). Nothing was changed.', {
      row: n + 1,
      table: { own: table },
      what: path.length ? { own: path.join('.') } : 'the whole of it',
      why: message,
    }),
  );
}

/** Ends the transaction of a dry run. */
class DryRun extends Error {}

/**
 * Bring a bundle's file into a studio, all of it or nothing; what is there already stays as it is. `dryRun`: say what would come and
 * change nothing. @throws Refusal (unfit) in words for its owner.
 */
export async function bringIn(studioId: Id<'studio'>, path: string, dryRun: boolean, actor?: string): Promise<BroughtIn> {
  let zip: ZipFile;
  let entries: Map<string, Entry>;
  try {
    zip = await openZip(path, { lazyEntries: true, autoClose: false });
    entries = await entriesOf(zip);
  } catch (error) {
    if (error instanceof Refusal) throw error;
    throw unfit(said('This is no bundle: it can’t be read as a ZIP file. Nothing was changed.'));
  }
  const open = promisify(zip.openReadStream.bind(zip)) as (entry: Entry) => Promise<Readable>;
  const bytesOf = async (name: string): Promise<Buffer> => {
    const entry = entries.get(name);
    if (!entry)
      throw unfit(said('{file} is missing in the bundle: it was not made to its end. Nothing was changed.', { file: { own: name } }));
    const parts: Buffer[] = [];
    let bytes = 0;
    for await (const part of await open(entry)) {
      // However small it was packed, and whatever the file says of its size.
      bytes += (part as Buffer).length;
      if (bytes > MOST_WORDS)
        throw unfit(
          said('{file} is larger than {most} MB unpacked. Nothing was changed.', { file: { own: name }, most: MOST_WORDS / 1e6 }),
        );
      parts.push(part as Buffer);
    }
    return Buffer.concat(parts);
  };
  const parsed = <T>(schema: z.ZodType<T>, name: string, bytes: Buffer): T => {
    try {
      return schema.parse(JSON.parse(bytes.toString()));
    } catch (error) {
      throw unfit(
        said('{file} is not what a bundle holds ({why}). Nothing was changed.', {
          file: { own: name },
          why: { own: (error as Error).message.slice(0, 200) },
        }),
      );
    }
  };
  const done: BroughtIn = { tables: [], recordings: 0, settings: false };
  try {
    const hashes = parsed(Hashes, 'hashes.json', await bytesOf('hashes.json'));
    const text = await bytesOf('wendel.json');
    if (sha256(text) !== hashes['wendel.json'])
      throw unfit(said('wendel.json was changed after it was made (its hash differs). Nothing was changed.'));
    const bundle = parsed(Bundle, 'wendel.json', text);
    if (bundle.version > VERSION)
      throw unfit(
        said('This bundle is of a newer Wendel (version {its}; this one reads {ours}): bring Wendel up to date first.', {
          its: bundle.version,
          ours: VERSION,
        }),
      );
    await inStudio(
      studioId,
      async (tx) => {
        const { rows: somebody } = await tx.execute('select 1 from singer where studio_id = $1 limit 1', [studioId]);
        const empty = somebody.length === 0;
        for (const name of BUNDLED) {
          const rows = bundle.tables[name].map((row, n) => fitting(name, row, n));
          const fresh = await insertRows(tx, name, rows);
          if (rows.length) done.tables.push({ name, fresh, known: rows.length - fresh });
        }
        const known = new Map(bundle.tables.take.map((t) => [takeId(t), t]));
        for (const id of await silentTakes(tx)) {
          const take = known.get(id);
          if (!take) continue;
          await readSound(tx, take, entries.get(wavName(id)), open, hashes[wavName(id)]);
          done.recordings++;
        }
        // Found by another engine, or not yet: they are listened to here.
        for (const id of await takesToAnalyse(tx)) if (known.has(id)) await enqueueAnalysis(tx, id, 'later');
        // Name, school and how long sound is kept are the studio's own, once anybody is in it: an old bundle must not end them.
        done.settings = empty;
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

/** Its shape was checked. */
const takeId = (take: BundleRow) => take.id as Id<'take'>;

/** @throws Refusal (unfit) when a recording is longer than was ever taken in, by its first bytes. */
function checkHead(takeId: unknown, head: Buffer): void {
  try {
    checkLength(wavLayout(head), MOST_MINUTES);
  } catch (error) {
    if (error instanceof SoundFileError)
      throw unfit(said('Take {take}: {problem} Nothing was changed.', { take: { own: String(takeId) }, problem: error.says }));
    throw error;
  }
}

/** A recording out of the bundle into the database, piece by piece; its hash must be the take's own. */
async function readSound(
  tx: StudioTx,
  take: BundleRow,
  entry: Entry | undefined,
  open: (entry: Entry) => Promise<Readable>,
  hash: string | undefined,
): Promise<void> {
  if (!entry)
    throw unfit(said('The recording of take {take} is missing in the bundle. Nothing was changed.', { take: { own: String(take.id) } }));
  const heard = createHash('sha256');
  let pending = Buffer.alloc(0);
  let part = 0;
  let bytes = 0;
  let checked = false;
  for await (const piece of await open(entry)) {
    bytes += (piece as Buffer).length;
    // However small it was packed.
    if (bytes > MAX_TAKE_BYTES)
      throw unfit(
        said('The recording of take {take} is larger than {most} MB. Nothing was changed.', {
          take: { own: String(take.id) },
          most: MAX_TAKE_BYTES / 1e6,
        }),
      );
    heard.update(piece as Buffer);
    pending = Buffer.concat([pending, piece as Buffer]);
    if (!checked && pending.length >= HEADER_BYTES) {
      checkHead(take.id, pending);
      checked = true;
    }
    while (pending.length >= PART_BYTES) {
      await insertAudioPart(tx, takeId(take), part++, pending.subarray(0, PART_BYTES));
      pending = pending.subarray(PART_BYTES);
    }
  }
  if (!checked) checkHead(take.id, pending);
  if (pending.length) await insertAudioPart(tx, takeId(take), part, pending);
  const digest = heard.digest('hex');
  if (digest !== take.sha256 || digest !== hash)
    throw unfit(
      said('The recording of take {take} was changed (its hash differs). Nothing was changed.', { take: { own: String(take.id) } }),
    );
}
