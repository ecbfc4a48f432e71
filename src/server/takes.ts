import { createHash } from 'node:crypto';
import { z } from 'zod';
import { checkLength, MAX_TAKE_BYTES, secondsOf, SoundFileError, wavLayout, WavLayout } from '../core/format/wav';
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
import { inPresentStudio, presentStudio } from './studio';

const PART_BYTES = 1_000_000;
const HEADER_BYTES = 65_536;
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

const tooLarge = () =>
  new Problem(
    `The recording is larger than ${Math.round(MAX_TAKE_BYTES / 1e6)} MB (about twelve minutes): cut it into shorter takes.`,
    413,
  );

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
  const store = () =>
    run(async (tx, meta) => {
      const existing = await findTake(tx, meta.id);
      if (existing) {
        if (existing.sha256 === meta.sha256) return { id: meta.id, repeated: true };
        throw new Problem('Another recording has this take id: record again.', 409);
      }
      if (!(await findSinger(tx, meta.singerId)))
        throw new Problem('This singer is not in the studio any more: choose another and save the take again.', 404);
      // A lesson that never reached the server must not cost a take.
      const lessonId = meta.lessonId && (await findLesson(tx, meta.lessonId)) ? meta.lessonId : null;
      await storeFile(tx, { ...meta, lessonId }, body);
      await enqueueAnalysis(tx, meta.id);
      return { id: meta.id, repeated: false };
    });
  try {
    return await store();
  } catch (error) {
    // Sent twice at the same time: the other one has stored it.
    if ((error as { code?: string; cause?: { code?: string } }).cause?.code !== UNIQUE_VIOLATION) throw error;
    const existing = await run((tx) => findTake(tx, meta.id));
    if (existing?.sha256 !== meta.sha256) throw error;
    return { id: meta.id, repeated: true };
  }
}

/** Read the body piece by piece: the head is checked before anything is written, hash and length at the end. */
async function storeFile(tx: StudioTx, meta: TakeMeta, body: AsyncIterable<Uint8Array> | null): Promise<void> {
  const hash = createHash('sha256');
  let layout: WavLayout | undefined;
  let headSeen = false;
  let pending: Uint8Array[] = [];
  let pendingBytes = 0;
  let part = 0;
  let total = 0;
  const flush = async () => {
    const bytes = Buffer.concat(pending);
    pending = [];
    pendingBytes = 0;
    if (!layout) {
      layout = wavLayout(bytes);
      checkLength(layout);
      // The row comes first, for its parts to point at; its length is checked before the transaction ends.
      await insertTake(tx, takeRow(meta, layout));
    }
    await insertAudioPart(tx, meta.id, part++, bytes);
  };
  for await (const chunk of body ?? []) {
    total += chunk.length;
    if (total > MAX_TAKE_BYTES) throw tooLarge();
    hash.update(chunk);
    for (let at = 0; at < chunk.length;) {
      const room = PART_BYTES - pendingBytes;
      const piece = chunk.subarray(at, at + room);
      pending.push(piece);
      pendingBytes += piece.length;
      at += piece.length;
      if (!headSeen && pendingBytes >= HEADER_BYTES) {
        headSeen = true;
        checkLength(wavLayout(Buffer.concat(pending)));
      }
      if (pendingBytes === PART_BYTES) await flush();
    }
  }
  if (total === 0) throw new SoundFileError('The recording is empty: record again.');
  if (pendingBytes > 0) await flush();
  if (layout!.dataStart + layout!.dataBytes > total)
    throw new SoundFileError('The recording arrived cut off: nothing was stored. Send it again.');
  if (hash.digest('hex') !== meta.sha256) throw new SoundFileError('The recording changed on its way: nothing was stored. Send it again.');
  if (layout!.dataBytes < (layout!.bits / 8) * layout!.channels) throw new SoundFileError('The recording holds no sound: record again.');
  await tx.execute('update take set bytes = $1 where id = $2', [total, meta.id]);
}

function takeRow(meta: TakeMeta, layout: WavLayout): TakeRow {
  return { ...meta, note: '', bytes: 0, durationS: secondsOf(layout), sampleRate: layout.sampleRate };
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
