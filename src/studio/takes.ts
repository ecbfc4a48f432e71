import type { Id } from '../core/format/id';
import type { Stored } from '../contract/answers';
import type { TakeMeta, TakeNote } from '../contract/inputs';
import { z } from 'zod';
import { secondsOf, WavLayout } from '../core/format/wav';
import { MarkShape } from '../core/format/take';
import { StudioTx } from '../data/client';
import { enqueueAnalysis } from '../data/queue';
import { findLesson } from '../data/lessons';
import { findSinger } from '../data/singers';
import {
  deleteMark,
  deleteTake,
  findTake,
  insertTake,
  analysisOf,
  marksOfTake,
  putMark,
  saveTakeNote,
  storedBytes,
  TakeRow,
} from '../data/takes';
import { insertAudioPart, PART_BYTES } from '../data/take-audio';
import type { Context, Run } from './context';
import { Refusal } from './refusal';
import { mustAgreeToRecording } from './singers';
import { noteSong } from './songs';
import { soundOf } from './sound';

/** A recording as it arrived: what its file says, and its bytes in pieces. */
export interface Recording {
  layout: WavLayout;
  bytes: number;
  pieces(most: number): AsyncIterable<Buffer>;
}

/**
 * Before a recording's sound is sent: whether it is stored already, and whether it may be (`mostBytes`: as much sound as a studio keeps).
 * @throws Refusal when its id is another's, its singer is gone or may not be recorded, or the studio is full.
 */
export async function announceTake({ tx }: Context, meta: TakeMeta, mostBytes: number): Promise<boolean> {
  if (await isThere(tx, meta)) return true;
  if ((await storedBytes(tx)) > mostBytes)
    throw new Refusal('full', 'The studio has as much sound as it may keep: delete takes, or keep them for a shorter time (Settings).');
  return false;
}

/**
 * Store a recording and put its analysis on the queue: both are there afterwards or neither. The same id with the same content is the
 * same take, however often it is sent. @throws Refusal as `announceTake`.
 */
export async function storeTake({ tx }: Context, meta: TakeMeta, recording: Recording): Promise<Stored> {
  if (await isThere(tx, meta)) return { id: meta.id, repeated: true };
  // A lesson that never reached the server must not cost a take.
  const lessonId = meta.lessonId && (await findLesson(tx, meta.lessonId)) ? meta.lessonId : null;
  await insertTake(tx, takeRow({ ...meta, lessonId }, recording));
  let part = 0;
  for await (const bytes of recording.pieces(PART_BYTES)) await insertAudioPart(tx, meta.id, part++, bytes);
  if (meta.song) await noteSong(tx, meta.id, (await findSinger(tx, meta.singerId))!, meta.song);
  await enqueueAnalysis(tx, meta.id);
  return { id: meta.id, repeated: false };
}

/**
 * Whether the same recording is stored already. @throws Refusal when its id is another's, or its singer is gone or may not be recorded.
 */
async function isThere(tx: StudioTx, meta: TakeMeta): Promise<boolean> {
  const existing = await findTake(tx, meta.id);
  if (existing && existing.sha256 !== meta.sha256) throw new Refusal('conflict', 'Another recording has this take id: record again.');
  if (existing) return true;
  const singer = await findSinger(tx, meta.singerId);
  if (!singer) throw new Refusal('not-found', 'This singer is not in the studio any more: choose another and save the take again.');
  mustAgreeToRecording(singer);
  return false;
}

function takeRow({ song: _song, ...meta }: TakeMeta, { layout, bytes }: Recording): TakeRow {
  return { ...meta, note: '', bytes, durationS: secondsOf(layout), sampleRate: layout.sampleRate };
}

async function mustFind(tx: StudioTx, id: Id<'take'>): Promise<TakeRow> {
  const take = await findTake(tx, id);
  if (take) tx.saw.add(take.singerId);
  if (!take) throw new Refusal('not-found', 'There is no such take: it may have been discarded.');
  return take;
}

/** A take with its newest analysis (none while it waits) and the coach's marks. */
export async function viewTake({ tx }: Context, id: Id<'take'>) {
  const take = await mustFind(tx, id);
  const [analysis, marks] = [await analysisOf(tx, id), await marksOfTake(tx, id)];
  return {
    take,
    analysis: analysis ?? null,
    marks: marks.map(({ id: markId, timeS, midi, direction, verdict, by }) => ({ id: markId, timeS, midi, direction, verdict, by })),
  };
}
export type TakeView = Awaited<ReturnType<typeof viewTake>>;

/** Discard a take with its sound, analyses and marks. */
export async function discardTake({ tx }: Context, id: Id<'take'>): Promise<void> {
  await mustFind(tx, id);
  await deleteTake(tx, id);
}

/** The take's file as a stream of bytes `from` to `to` (exclusive). */
export function takeAudioStream(run: Run, id: Id<'take'>, from: number, to: number): ReadableStream<Uint8Array> {
  const first = Math.floor(from / PART_BYTES);
  const pieces = soundOf(run, id, first);
  let at = from;
  /** Of the next piece so much comes before what is asked for. */
  let before = from - first * PART_BYTES;
  return new ReadableStream({
    async pull(controller) {
      const { value: bytes } = at < to ? await pieces.next() : { value: undefined };
      const piece = bytes?.subarray(before, before + (to - at));
      if (!piece?.length) return controller.close();
      before = 0;
      at += piece.length;
      controller.enqueue(piece);
    },
  });
}

/** @throws Refusal (gone) when its sound was deleted. */
export async function takeWithSound({ tx }: Context, id: Id<'take'>): Promise<TakeRow> {
  const take = await mustFind(tx, id);
  if (take.soundRemovedAt)
    throw new Refusal(
      'gone',
      'The sound of this take was deleted when its time was over, as the studio’s settings want; what was found in it stays.',
    );
  return take;
}

/** Set the coach's word on a moment; the mark's id is the client's, so saving twice is saving once. */
export async function setMark({ tx }: Context, takeId: Id<'take'>, markId: Id<'mark'>, input: z.infer<typeof MarkShape>): Promise<void> {
  await mustFind(tx, takeId);
  if (!(await putMark(tx, { id: markId, takeId, ...input })))
    throw new Refusal('conflict', 'This mark belongs to another take: make a new one.');
}

export async function removeMark({ tx }: Context, takeId: Id<'take'>, markId: Id<'mark'>): Promise<void> {
  await mustFind(tx, takeId);
  await deleteMark(tx, takeId, markId);
}

/** The coach's note on a take. */
export async function noteTake({ tx }: Context, id: Id<'take'>, { note }: z.infer<typeof TakeNote>) {
  await mustFind(tx, id);
  await saveTakeNote(tx, id, note);
}
