import type { Id } from '../core/format/id';
import { and, eq, sql } from 'drizzle-orm';
import { StudioTx } from './client';
import { takeAudio } from './schema';

/** Bytes of each piece of a take's file but the last. */
export const PART_BYTES = 1_000_000;

/** A piece of a take's file: here, or in the sound store under a key. */
export type Piece = { bytes: Buffer } | { storedAs: string };

export async function insertAudioPart({ db, studioId }: StudioTx, takeId: Id<'take'>, part: number, bytes: Buffer): Promise<void> {
  await db.insert(takeAudio).values({ studioId, takeId, part, bytes });
}

/** One piece of the take's file, or undefined past the end. */
export async function audioPart({ db, studioId }: StudioTx, takeId: Id<'take'>, part: number): Promise<Piece | undefined> {
  const [row] = await db
    .select({ bytes: takeAudio.bytes, storedAs: takeAudio.storedAs })
    .from(takeAudio)
    .where(and(eq(takeAudio.studioId, studioId), eq(takeAudio.takeId, takeId), eq(takeAudio.part, part)));
  return row && (row.bytes ? { bytes: row.bytes } : { storedAs: row.storedAs! });
}

/** Delete the sound of takes recorded before a time, for good; what was found in them stays. How many. */
export async function removeSound({ execute, studioId }: StudioTx, before: Date): Promise<number> {
  const { rows } = await execute(
    'update take set sound_removed_at = now() where studio_id = $1 and recorded_at < $2 and sound_removed_at is null returning id',
    [studioId, before],
  );
  const ids = (rows as { id: string }[]).map((row) => row.id);
  await execute('delete from take_audio where studio_id = $1 and take_id = any($2)', [studioId, ids]);
  return ids.length;
}

/** A piece on its way to the sound store. */
export interface Outgoing {
  storedAs: string;
  bytes: Buffer;
}

/**
 * A piece that lies here and belongs in the sound store, of a take that has been listened to. From here on its key is known: if the take is
 * deleted, it is deleted there too, whether or not it ever arrived. Pieces that somebody else may be sending come last.
 */
export async function nextToStore({ execute, studioId }: StudioTx): Promise<Outgoing | undefined> {
  const { rows } = await execute(
    // Materialised: in a nested loop a subquery that locks is asked again for every row, and each time gives another piece.
    `with next as materialized (
       select take_id, part from take_audio here
       where studio_id = $1::uuid and bytes is not null and exists (select from analysis where take_id = here.take_id)
       order by stored_as is not null limit 1 for update skip locked)
     update take_audio a set stored_as = $1 || '/' || a.take_id || '/' || a.part || '-' || encode(sha256(a.bytes), 'hex')
     from next where a.take_id = next.take_id and a.part = next.part
     returning a.stored_as as "storedAs", a.bytes`,
    [studioId],
  );
  const [next] = rows as Outgoing[];
  // Its key may be waiting to be deleted, from a time before: whoever is deleting it is waited for.
  if (next) await execute('delete from sound_to_delete where studio_id = $1 and key = $2', [studioId, next.storedAs]);
  return next;
}

/** A piece that has arrived in the sound store lies there only. */
export async function letGo({ db, studioId }: StudioTx, { storedAs }: Outgoing): Promise<void> {
  await db
    .update(takeAudio)
    .set({ bytes: null })
    .where(and(eq(takeAudio.studioId, studioId), eq(takeAudio.storedAs, storedAs)));
}

/** A key of a piece to delete from the sound store, held until the transaction ends, and forgotten with it. */
export async function nextToDelete({ execute, studioId }: StudioTx, goneBefore: Date): Promise<string | undefined> {
  const { rows } = await execute(
    `delete from sound_to_delete where key = (
       select key from sound_to_delete where studio_id = $1 and gone_at < $2 order by gone_at limit 1 for update skip locked) returning key`,
    [studioId, goneBefore],
  );
  return (rows as { key: string }[])[0]?.key;
}

/** Keys of all pieces that lie in the sound store only. */
export async function storedKeys({ db, studioId }: StudioTx): Promise<string[]> {
  const rows = await db
    .select({ key: sql<string>`${takeAudio.storedAs}` })
    .from(takeAudio)
    .where(and(eq(takeAudio.studioId, studioId), sql`${takeAudio.bytes} is null`))
    .orderBy(takeAudio.takeId, takeAudio.part);
  return rows.map(({ key }) => key);
}

/** Put a piece that lay in the sound store only back here. */
export async function bringHome({ db, studioId }: StudioTx, { storedAs, bytes }: Outgoing): Promise<void> {
  await db
    .update(takeAudio)
    .set({ bytes })
    .where(and(eq(takeAudio.studioId, studioId), eq(takeAudio.storedAs, storedAs)));
}
