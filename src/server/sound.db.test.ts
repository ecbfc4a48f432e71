import { Id, newId } from '../core/format/id';
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buffer } from 'node:stream/consumers';
import { Client } from 'pg';
import { TakeMeta } from '../contract/inputs';
import { ENGINE } from '../core/engine';
import { wavLayout, writeWav } from '../core/format/wav';
import { pool } from '../data/client';
import { madeSwift } from '../data/made-swift';
import { insertSinger } from '../data/singers';
import { SoundStore, soundStore } from '../data/sound-store';
import { nextToStore } from '../data/take-audio';
import { saveAnalysis } from '../data/takes';
import { analyseJob } from '../studio/analyse';
import { bringIn, bundleOf } from '../studio/bundle-file';
import { Run, wendelIn } from '../studio/context';
import { deleteOnePiece, storeOnePiece } from '../studio/sound';
import { sweepSound } from '../studio/sweep';
import { discardTake, storeTake, takeAudioStream } from '../studio/takes';
import { madeStudio, takeAway } from './made-entry';

const owner = new Client({ connectionString: process.env.WENDEL_OWNER_URL });
/** Three pieces of a take's file, the last a short one. */
const wav = Buffer.from(
  writeWav(
    { samples: Float32Array.from({ length: 1_100_000 }, (_, i) => 0.1 * Math.sin(i / 30) + 0.05 * Math.sin(i ** 1.3)), sampleRate: 44100 },
    16,
  ),
);
const sha256 = createHash('sha256').update(wav).digest('hex');
const PIECES = 3;

let swift: Awaited<ReturnType<typeof madeSwift>>;
let store: SoundStore;
let studioId: Id<'studio'>;
let singerId: Id<'singer'>;
const inIt: Run = (work, ...input) => wendelIn(studioId)(work, ...input);

/** A take that was listened to; its id. */
async function keep(recordedAt = new Date()): Promise<Id<'take'>> {
  const id = newId('take');
  const meta: TakeMeta = {
    ...{ id, singerId, sha256, recordedAt, task: 'free', source: 'file', vowel: '' },
    ...{ colour: null, lessonId: null, step: '', asked: null, song: null },
  };
  const recording = {
    layout: wavLayout(wav),
    bytes: wav.length,
    async *pieces(most: number) {
      for (let at = 0; at < wav.length; at += most) yield wav.subarray(at, at + most);
    },
  };
  await inIt(storeTake, meta, recording);
  await inIt(({ tx }) => saveAnalysis(tx, id, 'an-earlier-engine', {}));
  return id;
}

async function storeAll(): Promise<number> {
  for (let n = 0; ; n++) if (!(await storeOnePiece(inIt, store))) return n;
}

/** The clock moved on: what is deleted here is deleted there. */
async function deleteAll(): Promise<number> {
  const now = new Date(Date.now() + 3_600_000);
  for (let n = 0; ; n++) if (!(await inIt((ctx) => deleteOnePiece({ ...ctx, now }, store)))) return n;
}

const read = async (id: Id<'take'>, from = 0, to = wav.length) => buffer(takeAudioStream(inIt, id, from, to) as never);
const here = async () =>
  (await owner.query('select count(*)::int as n from take_audio where studio_id = $1 and bytes is not null', [studioId])).rows[0].n;

beforeAll(async () => {
  swift = await madeSwift();
  Object.assign(process.env, swift.settings);
  store = soundStore()!;
  await owner.connect();
  studioId = await madeStudio(owner, 'Weir');
  singerId = await inIt(({ tx }) =>
    insertSinger(tx, { name: 'Ada Weir', part: '', voiceType: 'tenor', note: '', email: null, intake: null, school: null }),
  );
});

afterEach(async () => {
  await owner.query('delete from take where studio_id = $1', [studioId]);
  await deleteAll();
  expect(await swift.keys()).toEqual([]);
});

afterAll(async () => {
  for (const name of Object.keys(swift.settings)) delete process.env[name];
  await takeAway(owner, studioId);
  await owner.end();
  await pool().end();
  await swift.remove();
});

test('sound rests in the store and is read from there as from here: whole, a part, analysed, in a bundle', async () => {
  const id = await keep();
  expect(await storeAll()).toBe(PIECES);
  expect([await here(), (await swift.keys()).length]).toEqual([0, PIECES]);
  expect((await read(id)).equals(wav)).toBe(true);
  expect((await read(id, 999_990, 1_000_010)).equals(wav.subarray(999_990, 1_000_010))).toBe(true);
  expect((await read(id, 1_500_000, 2_100_000)).equals(wav.subarray(1_500_000, 2_100_000))).toBe(true);
  await analyseJob({ studioId, takeId: id });
  const { rows } = await owner.query('select error from analysis where take_id = $1 and engine = $2', [id, ENGINE]);
  expect(rows).toEqual([{ error: null }]);
  const folder = mkdtempSync(join(tmpdir(), 'wendel-weir-'));
  const file = join(folder, 'studio.zip');
  await writeFile(file, Buffer.from(await new Response((await bundleOf(studioId)).stream).arrayBuffer()));
  await owner.query('delete from take where studio_id = $1', [studioId]);
  expect(await bringIn(studioId, file, false)).toMatchObject({ recordings: 1 });
  rmSync(folder, { recursive: true });
  expect((await read(id)).equals(wav)).toBe(true);
  // Sent there again while its keys were waiting to be deleted, it isn't deleted.
  expect(await storeAll()).toBe(PIECES);
  expect(await deleteAll()).toBe(0);
  expect((await read(id)).equals(wav)).toBe(true);
});

test('a take that is discarded, whose time is over, or that is deleted on its way there is gone there too, and no sooner than it can be', async () => {
  const discarded = await keep();
  const old = await keep(new Date('2020-03-01'));
  await storeAll();
  await inIt(discardTake, discarded);
  await owner.query("update studio set keep_months = 12, keep_months_since = '2020-01-01' where id = $1", [studioId]);
  expect(await inIt(sweepSound)).toBe(1);
  await owner.query('update studio set keep_months = null where id = $1', [studioId]);
  // A piece may be on its way for a while: not yet.
  expect(await inIt(deleteOnePiece, store)).toBe(false);
  expect((await swift.keys()).length).toBe(2 * PIECES);
  expect(await deleteAll()).toBe(2 * PIECES);
  expect(await swift.keys()).toEqual([]);
  expect((await read(old)).length).toBe(0);
  // Deleted between being sent and being let go.
  const late = await keep();
  const slow: SoundStore = {
    ...store,
    put: async (key, bytes) => {
      await inIt(discardTake, late);
      await store.put(key, bytes);
    },
  };
  await storeOnePiece(inIt, slow);
  expect((await swift.keys()).length).toBe(1);
  expect(await deleteAll()).toBe(1);
});

test('a store that is away costs nothing: sound stays here until it is back, and what lies there is asked for again', async () => {
  const there = await keep();
  await storeAll();
  const waiting = await keep();
  await swift.end();
  await expect(storeOnePiece(inIt, store)).rejects.toThrow();
  expect(await here()).toBe(PIECES);
  expect((await read(waiting)).equals(wav)).toBe(true);
  await expect(read(there)).rejects.toThrow();
  // An analysis fails and is tried again; it doesn't find silence.
  await expect(analyseJob({ studioId, takeId: there })).rejects.toThrow();
  expect((await owner.query('select from analysis where take_id = $1 and engine = $2', [there, ENGINE])).rowCount).toBe(0);
  await swift.start();
  expect(await storeAll()).toBe(PIECES);
  expect([(await read(there)).equals(wav), (await read(waiting)).equals(wav)]).toEqual([true, true]);
});

test('what isn’t what was sent, a wrong key and a store that isn’t set are said', async () => {
  const id = await keep();
  await storeAll();
  const [key] = await swift.keys();
  await swift.change(key, 'something else');
  await expect(read(id)).rejects.toThrow('something else under');
  const stranger = soundStore({ ...swift.settings, WENDEL_SOUND_STORE_SECRET: 'a wrong one' })!;
  await expect(stranger.get(key)).rejects.toThrow('403');
  await expect(stranger.put(key, Buffer.from('theirs'))).rejects.toThrow('403');
  process.env.WENDEL_SOUND_STORE = '';
  await expect(read(id)).rejects.toThrow('set WENDEL_SOUND_STORE as it was');
  Object.assign(process.env, swift.settings);
});

test('one piece at a time is sent on, however the database joins', async () => {
  // Where it takes the table for an empty one, and without its indexes, it once joined every piece with a choice of its own.
  await owner.query('vacuum analyze take_audio, analysis');
  await keep();
  const given = await inIt(async ({ tx }) => {
    for (const way of ['indexscan', 'bitmapscan', 'hashjoin', 'mergejoin']) await tx.execute(`set local enable_${way} = off`);
    const { storedAs } = (await nextToStore(tx))!;
    return { storedAs, known: (await tx.execute('select stored_as from take_audio where stored_as is not null')).rows };
  });
  expect(given.known).toEqual([{ stored_as: given.storedAs }]);
});

test('takes nobody has listened to yet stay here', async () => {
  const id = await keep();
  await owner.query('delete from analysis where take_id = $1', [id]);
  expect(await storeAll()).toBe(0);
});
