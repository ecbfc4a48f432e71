import { z } from 'zod';
import { MAX_TAKE_BYTES, secondsOf } from '../core/format/wav';
import { Asked, COLOURS, TASKS } from '../core/take/types';
import { StudioTx } from '../data/client';
import { enqueueAnalysis } from '../data/queue';
import { findLesson } from '../data/lessons';
import { evidenceChanged } from '../data/maps';
import { findSinger } from '../data/singers';
import {
  audioPart,
  deleteMark,
  deleteTake,
  findTake,
  insertAudioPart,
  insertTake,
  analysisOf,
  marksOfTake,
  putMark,
  saveTakeNote,
  TakeRow,
} from '../data/takes';
import { Problem } from './problem';
import { spool, Spooled, tooLarge } from './spool';
import { inPresentStudio, presentStudio } from './studio';

const PART_BYTES = 1_000_000;
/** PostgreSQL's code. */
const UNIQUE_VIOLATION = '23505';

const AskedFor: z.ZodType<Asked> = z.object({
  degrees: z.array(z.number().int().min(1).max(22)).min(1).max(40).optional(),
  tonicMidi: z.number().int().min(12).max(108).optional(),
});

export const TakeMeta = z.object({
  id: z.uuid(),
  singerId: z.uuid(),
  task: z.enum(TASKS),
  vowel: z.string().max(20).default(''),
  colour: z.enum(COLOURS).nullable().default(null),
  source: z.enum(['microphone', 'file', 'simulated']),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  recordedAt: z.coerce.date().max(new Date(Date.now() + 365 * 86_400_000)),
  lessonId: z.uuid().nullable().default(null),
  step: z.string().max(60).default(''),
  /** JSON, as it comes in the address. */
  asked: z.preprocess((v) => (typeof v === 'string' ? JSON.parse(v) : v), AskedFor.nullable()).default(null),
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
  if (await run(isThere)) return { id: meta.id, repeated: true };
  const file = await spool(body, meta.sha256);
  try {
    return await run(async (tx, meta) => {
      if (await isThere(tx, meta)) return { id: meta.id, repeated: true };
      // A lesson that never reached the server must not cost a take.
      const lessonId = meta.lessonId && (await findLesson(tx, meta.lessonId)) ? meta.lessonId : null;
      await insertTake(tx, takeRow({ ...meta, lessonId }, file));
      let part = 0;
      for await (const bytes of file.pieces(PART_BYTES)) await insertAudioPart(tx, meta.id, part++, bytes);
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

/** Whether the same recording is stored already. @throws Problem when its id is another's, or its singer is gone. */
async function isThere(tx: StudioTx, meta: TakeMeta): Promise<boolean> {
  const existing = await findTake(tx, meta.id);
  if (existing && existing.sha256 !== meta.sha256) throw new Problem('Another recording has this take id: record again.', 409);
  if (!existing && !(await findSinger(tx, meta.singerId)))
    throw new Problem('This singer is not in the studio any more: choose another and save the take again.', 404);
  return existing !== undefined;
}

function takeRow(meta: TakeMeta, { layout, bytes }: Spooled): TakeRow {
  return { ...meta, note: '', bytes, durationS: secondsOf(layout), sampleRate: layout.sampleRate };
}

async function mustFind(tx: StudioTx, id: string): Promise<TakeRow> {
  const take = z.uuid().safeParse(id).success ? await findTake(tx, id) : undefined;
  if (take) tx.saw.add(take.singerId);
  if (!take) throw new Problem('There is no such take: it may have been discarded.', 404);
  return take;
}

const LOOK_AGAIN_MS = 25;

/** As `viewTake`, as soon as the take is analysed, or after `waitMs` at the latest. */
export async function awaitTake(id: string, waitMs: number): Promise<TakeView> {
  for (const until = Date.now() + waitMs; ; await new Promise((resolve) => setTimeout(resolve, LOOK_AGAIN_MS))) {
    const view = await viewTake(id);
    if (view.analysis || Date.now() > until) return view;
  }
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
    const { singerId } = await mustFind(tx, id);
    await deleteTake(tx, id);
    await evidenceChanged(tx, singerId);
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

export const MarkInput = z.object({
  timeS: z.number().min(0).max(7200),
  midi: z.number().min(12).max(120),
  direction: z.enum(['up', 'down']),
  verdict: z.enum(['accept', 'reject', 'move', 'add']),
  by: z.enum(['coach', 'singer']).default('coach'),
});

/** Set the coach's word on a moment; the mark's id is the client's, so saving twice is saving once. */
export async function setMark(takeId: string, markId: string, input: z.infer<typeof MarkInput>): Promise<void> {
  await inPresentStudio(async (tx) => {
    const { singerId } = await mustFind(tx, takeId);
    await putMark(tx, { id: markId, takeId, ...input });
    await evidenceChanged(tx, singerId);
  });
}

export async function removeMark(takeId: string, markId: string): Promise<void> {
  await inPresentStudio(async (tx) => {
    const { singerId } = await mustFind(tx, takeId);
    await deleteMark(tx, takeId, markId);
    await evidenceChanged(tx, singerId);
  });
}

export const TakeNote = z.object({ note: z.string().trim().max(2000) });

/** The coach's note on a take. */
export const noteTake = (id: string, { note }: z.infer<typeof TakeNote>) =>
  inPresentStudio(async (tx) => {
    await mustFind(tx, id);
    await saveTakeNote(tx, id, note);
  });
