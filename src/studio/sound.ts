import type { Id } from '../core/format/id';
import { subMinutes } from 'date-fns';
import { bytesOf, SoundStore } from '../data/sound-store';
import { audioPart, letGo, nextToDelete, nextToStore } from '../data/take-audio';
import type { Context, Run } from './context';

/** The pieces of a take's file from one on, one in memory and one short transaction at a time. */
export async function* soundOf(run: Run, takeId: Id<'take'>, fromPart = 0): AsyncGenerator<Buffer> {
  for (let part = fromPart; ; part++) {
    const piece = await run(({ tx }) => audioPart(tx, takeId, part));
    if (!piece) return;
    yield await bytesOf(piece);
  }
}

/** Send a piece of a studio's sound to the store, and let it go here once it is there. Whether there was one. */
export async function storeOnePiece(run: Run, store: SoundStore): Promise<boolean> {
  const piece = await run(({ tx }) => nextToStore(tx));
  if (!piece) return false;
  await store.put(piece.storedAs, piece.bytes);
  await run(({ tx }) => letGo(tx, piece));
  return true;
}

/** What is deleted here is deleted in the store so much later: by then no piece is on its way there any more. */
const GONE_MIN = 10;

/** Delete a piece from the store that is deleted here. Whether there was one. */
export async function deleteOnePiece({ tx, now }: Context, store: SoundStore): Promise<boolean> {
  const key = await nextToDelete(tx, subMinutes(now, GONE_MIN));
  if (key) await store.remove(key);
  return key !== undefined;
}
