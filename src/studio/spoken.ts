import type { Id } from '../core/format/id';
import { createHash } from 'node:crypto';
import type { z } from 'zod';
import type { SpokenMeta } from '../contract/inputs';
import { deleteSpoken, keepNewestSpoken, putSpoken, soundOfSpoken } from '../data/spoken';
import type { Context } from './context';
import { Refusal } from './refusal';
import { mustBeShort } from './short-sound';
import { mustAgreeToRecording, mustFindSinger } from './singers';

/** So many spoken words of one singer are kept, the newest: half a year of one a day. */
export const MOST_SPOKEN = 180;

/** Whether a singer may bring a spoken word. @throws Refusal (conflict) where nobody agreed to recording. */
export async function mayBringSpoken({ tx }: Context, singerId: Id<'singer'>): Promise<void> {
  mustAgreeToRecording(await mustFindSinger(tx, singerId));
}

/**
 * Keep what a singer spoke to their coach, of the line of the log with that id, which may arrive later; sent twice it is there once.
 * @throws Refusal (incomplete) when it is no sound, too long, or not what was sent; (conflict) as above, or when the id is another's.
 */
export async function keepSpoken(
  ctx: Context,
  singerId: Id<'singer'>,
  { id, sha256 }: z.infer<typeof SpokenMeta>,
  wav: Buffer,
): Promise<void> {
  const { tx } = ctx;
  await mayBringSpoken(ctx, singerId);
  if (createHash('sha256').update(wav).digest('hex') !== sha256)
    throw new Refusal('incomplete', 'The recording changed on its way: nothing was stored. Send it again.');
  mustBeShort(wav);
  if (await putSpoken(tx, { id, singerId, wav })) return keepNewestSpoken(tx, singerId, MOST_SPOKEN);
  const kept = await soundOfSpoken(tx, id);
  if (kept?.singerId !== singerId || !kept.wav.equals(wav)) throw new Refusal('conflict', 'Another spoken word has this id: say it anew.');
}

const notHere = () => new Refusal('not-found', 'This spoken word is not here: it has not arrived yet, or was deleted.');

/** What was spoken of a line of a log (WAV). @throws Refusal (not-found). */
export async function spokenSound({ tx }: Context, id: Id<'entry'>): Promise<Buffer> {
  const found = await soundOfSpoken(tx, id);
  if (!found) throw notHere();
  tx.saw.add(found.singerId);
  return found.wav;
}

/** Delete the sound of a spoken word for good; its line stays. @throws Refusal (not-found). */
export async function removeSpokenWord({ tx }: Context, id: Id<'entry'>): Promise<void> {
  if (!(await deleteSpoken(tx, id))) throw notHere();
}
