import type { Id } from '../core/format/id';
import { MAX_TAKE_BYTES } from '../core/format/wav';
import type { Stored } from '../contract/answers';
import type { TakeMeta } from '../contract/inputs';
import { onChange } from '../data/events';
import { findTake } from '../data/takes';
import type { Context } from '../studio/context';
import { announceTake, storeTake, TakeView, viewTake } from '../studio/takes';
import { bySinger } from './links';
import { inPresentStudio, mustBe } from './let-in';
import { atMostAtOnce } from './limits';
import { spool, tooLarge } from './spool';

/** PostgreSQL's code. */
const UNIQUE_VIOLATION = '23505';
/** Recordings of one singer on their way at once: a phone sends one after another. */
const UPLOADS_AT_ONCE = 4;
/** Most sound one studio may keep, bytes: a disk is not endless. WENDEL_STUDIO_GB changes it. */
const mostBytes = () => (Number(process.env.WENDEL_STUDIO_GB) || 100) * 1e9;

/** A recording on its way: its sound in pieces, and how long it is said to be. */
export interface Upload {
  body: AsyncIterable<Uint8Array> | null;
  announcedBytes: number | null;
}

export const uploadOf = (request: Request): Upload => {
  const length = request.headers.get('content-length');
  return { body: request.body as AsyncIterable<Uint8Array> | null, announcedBytes: length ? Number(length) : null };
};

/** A way in for a recording: as whom, and whose it is. */
type Enter = <T>(work: (ctx: Context, meta: TakeMeta) => Promise<T>) => Promise<T>;

/** Take in a recording: a short look before, so that nobody unknown sends anything, and no connection held while the sound is on its way. */
async function receive(enter: Enter, { id, sha256 }: TakeMeta, { body, announcedBytes }: Upload): Promise<Stored> {
  if (announcedBytes !== null && announcedBytes > MAX_TAKE_BYTES) throw tooLarge();
  const { there, singerId } = await enter(async (ctx, meta) => ({
    there: await announceTake(ctx, meta, mostBytes()),
    singerId: meta.singerId,
  }));
  if (there) return { id, repeated: true };
  return atMostAtOnce(UPLOADS_AT_ONCE, `uploads ${singerId}`, async () => {
    const file = await spool(body, sha256);
    try {
      return await enter((ctx, meta) => storeTake(ctx, meta, file));
    } catch (error) {
      // Sent twice at the same time: the other one has stored it.
      if ((error as { code?: string; cause?: { code?: string } }).cause?.code !== UNIQUE_VIOLATION) throw error;
      const existing = await enter(({ tx }) => findTake(tx, id));
      if (existing?.sha256 !== sha256) throw error;
      return { id, repeated: true };
    } finally {
      await file.remove();
    }
  });
}

export const receiveTake = (meta: TakeMeta, upload: Upload): Promise<Stored> =>
  receive((work) => inPresentStudio(work, meta), meta, upload);

/** A recording made on the singer's page: it is theirs, whatever it says. */
export const receivePracticeTake = (token: string, meta: TakeMeta, upload: Upload): Promise<Stored> =>
  receive((work) => bySinger(token)((ctx, singerId) => work(ctx, { ...meta, singerId, lessonId: null })), meta, upload);

/** Whoever waits for a take looks so often by himself, in case nothing was told (the database restarted), ms. */
const LOOK_AGAIN_MS = 2000;
const WAITS_AT_ONCE = 8;

/** As `viewTake`, as soon as the take is analysed, or after `waitMs` at the latest. */
export async function awaitTake(id: Id<'take'>, waitMs: number): Promise<TakeView> {
  if (waitMs === 0) return inPresentStudio(viewTake, id);
  const { studioId, userId } = await mustBe('reader');
  return atMostAtOnce(WAITS_AT_ONCE, `waits ${userId}`, async () => {
    const until = Date.now() + waitMs;
    let wake = () => {};
    let told = false;
    // Listening before the first look: what is told in between isn't missed.
    const stop = onChange(studioId, (change) => {
      if (change.id !== id) return;
      told = true;
      wake();
    });
    try {
      for (;;) {
        told = false;
        const view = await inPresentStudio(viewTake, id);
        if (view.analysis || Date.now() > until) return view;
        if (told) continue;
        await new Promise<void>((resolve) => {
          const timer = setTimeout(resolve, LOOK_AGAIN_MS);
          wake = () => {
            clearTimeout(timer);
            resolve();
          };
        });
      }
    } finally {
      stop();
    }
  });
}
