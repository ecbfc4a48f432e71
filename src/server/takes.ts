import { z } from 'zod';
import { MAX_TAKE_BYTES, secondsOf } from '../core/format/wav';
import { AskedShape, FIRST_RECORDING, MarkShape, SHA256, SOURCES } from '../core/format/take';
import { SungShape } from '../core/format/song';
import { COLOURS, TASKS } from '../core/take/types';
import { StudioTx } from '../data/client';
import { enqueueAnalysis } from '../data/queue';
import { findLesson } from '../data/lessons';
import { awaitsConsent, findSinger } from '../data/singers';
import {
  audioPart,
  deleteMark,
  deleteTake,
  findTake,
  insertAudioPart,
  insertTake,
  analysisOf,
  marksOfTake,
  PART_BYTES,
  putMark,
  saveTakeNote,
  storedBytes,
  TakeRow,
} from '../data/takes';
import { atMostAtOnce } from './limits';
import { Problem } from './problem';
import { noteSong } from './songs';
import { spool, Spooled, tooLarge } from './spool';
import { inPresentStudio, mustBe, presentStudio } from './studio';

/** PostgreSQL's code. */
const UNIQUE_VIOLATION = '23505';

const DAY_MS = 86_400_000;

/** JSON, as it comes in the address. */
const fromAddress = (v: unknown): unknown => (typeof v === 'string' ? JSON.parse(v) : v);

export const TakeMeta = z.object({
  id: z.uuid(),
  singerId: z.uuid(),
  task: z.enum(TASKS),
  vowel: z.string().max(20).default(''),
  colour: z.enum(COLOURS).nullable().default(null),
  source: z.enum(SOURCES),
  sha256: SHA256,
  /** By the recorder's own clock, which may be wrong by a day; how long sound is kept is counted from it. */
  recordedAt: z.coerce
    .date()
    .min(FIRST_RECORDING)
    .refine((at) => at.getTime() < Date.now() + DAY_MS, 'The time of recording lies in the future: set the clock right and save it again.'),
  lessonId: z.uuid().nullable().default(null),
  step: z.string().max(60).default(''),
  asked: z.preprocess(fromAddress, AskedShape.nullable()).default(null),
  /** The song it is a take of, and in which key. */
  song: z.preprocess(fromAddress, SungShape.nullable()).default(null),
});
export type TakeMeta = z.infer<typeof TakeMeta>;

type Run = <T>(work: (tx: StudioTx, meta: TakeMeta) => Promise<T>) => Promise<T>;

/**
 * Store an uploaded WAV file and put its analysis on the queue, in one transaction: both are there afterwards or
 * neither. The same id with the same content is the same take, however often it is sent.
 */
export async function receiveTake(
  meta: TakeMeta,
  body: AsyncIterable<Uint8Array> | null,
  announcedBytes: number | null,
  /** For whom it is stored: the present studio, or the singer whose link it came through. */
  run: Run = (work) => inPresentStudio((tx) => work(tx, meta)),
): Promise<{ id: string; repeated: boolean }> {
  if (announcedBytes !== null && announcedBytes > MAX_TAKE_BYTES) throw tooLarge();
  // A short look before, so that nobody unknown sends anything; no connection is held while the sound is on its way.
  const { there, singerId } = await run(async (tx, meta) => {
    const there = await isThere(tx, meta);
    if (!there) await mustHaveRoom(tx);
    return { there, singerId: meta.singerId };
  });
  if (there) return { id: meta.id, repeated: true };
  return atMostAtOnce(UPLOADS_AT_ONCE, `uploads ${singerId}`, () => store(meta, body, run));
}

/** Recordings of one singer on their way at once: a phone sends one after another. */
const UPLOADS_AT_ONCE = 4;

async function store(meta: TakeMeta, body: AsyncIterable<Uint8Array> | null, run: Run): Promise<{ id: string; repeated: boolean }> {
  const file = await spool(body, meta.sha256);
  try {
    return await run(async (tx, meta) => {
      if (await isThere(tx, meta)) return { id: meta.id, repeated: true };
      // A lesson that never reached the server must not cost a take.
      const lessonId = meta.lessonId && (await findLesson(tx, meta.lessonId)) ? meta.lessonId : null;
      await insertTake(tx, takeRow({ ...meta, lessonId }, file));
      let part = 0;
      for await (const bytes of file.pieces(PART_BYTES)) await insertAudioPart(tx, meta.id, part++, bytes);
      if (meta.song) await noteSong(tx, meta.id, (await findSinger(tx, meta.singerId))!, meta.song);
      await enqueueAnalysis(tx, meta.id);
      return { id: meta.id, repeated: false };
    });
  } catch (error) {
    // Sent twice at the same time: the other one has stored it.
    if ((error as { code?: string; cause?: { code?: string } }).cause?.code !== UNIQUE_VIOLATION) throw error;
    const existing = await run((tx) => findTake(tx, meta.id));
    if (existing?.sha256 !== meta.sha256) throw error;
    return { id: meta.id, repeated: true };
  } finally {
    await file.remove();
  }
}

/** Most sound one studio may keep, bytes: a disk is not endless. WENDEL_STUDIO_GB changes it. */
const mostBytes = () => (Number(process.env.WENDEL_STUDIO_GB) || 100) * 1e9;

/**
 * Whether the same recording is stored already. @throws Problem when its id is another's, or its singer is gone or may not be recorded.
 */
async function isThere(tx: StudioTx, meta: TakeMeta): Promise<boolean> {
  const existing = await findTake(tx, meta.id);
  if (existing && existing.sha256 !== meta.sha256) throw new Problem('Another recording has this take id: record again.', 409);
  if (existing) return true;
  const singer = await findSinger(tx, meta.singerId);
  if (!singer) throw new Problem('This singer is not in the studio any more: choose another and save the take again.', 404);
  if (awaitsConsent(singer.intake))
    throw new Problem(
      `${singer.name} is a minor, and no guardian’s consent to recording is noted: note it in the singer’s record, then send the take again.`,
      409,
    );
  return false;
}

/** @throws Problem (507) when the studio has as much sound as it may keep. */
async function mustHaveRoom(tx: StudioTx): Promise<void> {
  if ((await storedBytes(tx)) > mostBytes())
    throw new Problem('The studio has as much sound as it may keep: delete takes, or keep them for a shorter time (Settings).', 507);
}

function takeRow({ song: _song, ...meta }: TakeMeta, { layout, bytes }: Spooled): TakeRow {
  return { ...meta, note: '', bytes, durationS: secondsOf(layout), sampleRate: layout.sampleRate };
}

async function mustFind(tx: StudioTx, id: string): Promise<TakeRow> {
  const take = z.uuid().safeParse(id).success ? await findTake(tx, id) : undefined;
  if (take) tx.saw.add(take.singerId);
  if (!take) throw new Problem('There is no such take: it may have been discarded.', 404);
  return take;
}

/** How often to look whether a take is analysed: soon at first, when it is worth it, then ever more seldom, ms. */
const LOOK_AGAIN_MS = { first: 25, growth: 1.15, most: 1000 };
const WAITS_AT_ONCE = 8;

/** As `viewTake`, as soon as the take is analysed, or after `waitMs` at the latest. */
export async function awaitTake(id: string, waitMs: number): Promise<TakeView> {
  if (waitMs === 0) return viewTake(id);
  return atMostAtOnce(WAITS_AT_ONCE, `waits ${(await mustBe('reader')).userId}`, async () => {
    const until = Date.now() + waitMs;
    for (let pause = LOOK_AGAIN_MS.first; ; pause = Math.min(LOOK_AGAIN_MS.most, pause * LOOK_AGAIN_MS.growth)) {
      const view = await viewTake(id);
      if (view.analysis || Date.now() > until) return view;
      await new Promise((resolve) => setTimeout(resolve, pause));
    }
  });
}

/** A take with its newest analysis (none while it waits) and the coach's marks. */
export async function viewTake(id: string) {
  return inPresentStudio(async (tx) => {
    const take = await mustFind(tx, id);
    const [analysis, marks] = [await analysisOf(tx, id), await marksOfTake(tx, id)];
    return {
      take,
      analysis: analysis ?? null,
      marks: marks.map(({ id: markId, timeS, midi, direction, verdict, by }) => ({ id: markId, timeS, midi, direction, verdict, by })),
    };
  });
}
export type TakeView = Awaited<ReturnType<typeof viewTake>>;

/** Discard a take with its sound, analyses and marks. */
export async function discardTake(id: string): Promise<void> {
  await inPresentStudio(async (tx) => {
    await mustFind(tx, id);
    await deleteTake(tx, id);
  });
}

/** The take's file as a stream of bytes `from` to `to` (exclusive), one stored piece in memory at a time. */
export async function takeAudioStream(
  id: string,
  from: number,
  to: number,
  inItsStudio?: typeof inPresentStudio,
): Promise<ReadableStream<Uint8Array>> {
  let at = from;
  const run = inItsStudio ?? (await presentStudio());
  return new ReadableStream({
    async pull(controller) {
      if (at >= to) return controller.close();
      const part = Math.floor(at / PART_BYTES);
      const bytes = await run((tx) => audioPart(tx, id, part));
      const start = at - part * PART_BYTES;
      const piece = bytes?.subarray(start, Math.min(bytes.length, start + (to - at)));
      if (!piece?.length) return controller.close();
      at += piece.length;
      controller.enqueue(piece);
    },
  });
}

export const takeRecord = (id: string) => inPresentStudio((tx) => mustFind(tx, id));

/** Set the coach's word on a moment; the mark's id is the client's, so saving twice is saving once. */
export async function setMark(takeId: string, markId: string, input: z.infer<typeof MarkShape>): Promise<void> {
  await inPresentStudio(async (tx) => {
    await mustFind(tx, takeId);
    if (!(await putMark(tx, { id: markId, takeId, ...input })))
      throw new Problem('This mark belongs to another take: make a new one.', 409);
  });
}

export async function removeMark(takeId: string, markId: string): Promise<void> {
  await inPresentStudio(async (tx) => {
    await mustFind(tx, takeId);
    await deleteMark(tx, takeId, markId);
  });
}

export const TakeNote = z.object({ note: z.string().trim().max(2000) });

/** The coach's note on a take. */
export const noteTake = (id: string, { note }: z.infer<typeof TakeNote>) =>
  inPresentStudio(async (tx) => {
    await mustFind(tx, id);
    await saveTakeNote(tx, id, note);
  });
