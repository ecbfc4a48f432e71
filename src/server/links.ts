import { createHash, randomBytes } from 'node:crypto';
import { addDays } from 'date-fns';
import { inStudio, StudioTx } from '../data/client';
import { note } from '../data/audit';
import { insertLink, linkByHash, linkUsed, messagesOf, revokeLinks } from '../data/links';
import { findSinger } from '../data/singers';
import { dayOf } from './day';
import { Problem } from './problem';
import { mustFindSinger } from './singers';
import { countTry } from './limits';
import { countPost, deliver, mailIsSet, post, publicAddress } from './mail';
import { afterAnswer, senderAddress } from './session';
import { inPresentStudio, mustBe } from './studio';

const TOKEN_BYTES = 32;
/** A link is good for half a year; a new one is a click. */
const LASTS_DAYS = 180;

/** A token good for a door, and what is kept of it. */
export const newToken = () => randomBytes(TOKEN_BYTES).toString('base64url');
export const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');

/** A new link for a singer; any older one ends. The token is in the answer and the message only, never kept. */
export async function makeLink(singerId: string, usedNow?: string): Promise<{ address: string; mailed: boolean }> {
  await countPost((await mustBe('coach')).studioId);
  const { studioId, ...made } = await inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, singerId);
    await revokeLinks(tx, singerId);
    const token = newToken();
    const expiresAt = addDays(new Date(), LASTS_DAYS);
    await insertLink(tx, singerId, hashOf(token), expiresAt);
    const address = `${publicAddress(usedNow)}/p/${token}`;
    await post(tx, {
      singerId,
      recipient: singer.name,
      address: singer.email,
      subject: 'Your practice page',
      body: `${singer.name},\n\nyour practice page is ready. Open it on your phone and keep it on the home screen:\n\n${address}\n\nThe link is yours alone; whoever has it sees your exercises. It is good until ${dayOf(expiresAt)}.`,
    });
    return { address, studioId: tx.studioId, mailed: mailIsSet() && singer.email !== null };
  });
  afterAnswer(() => deliver(studioId));
  return made;
}

export const endLink = (singerId: string) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, singerId);
    await revokeLinks(tx, singerId);
  });

/** What the studio has to send; readers see none: a practice page's address is a key. @throws Problem (403). */
export async function viewMessages() {
  const { role } = await mustBe('coach');
  return { mailSet: mailIsSet(), messages: await inPresentStudio((tx) => messagesOf(tx, role === 'owner')) };
}

/** Hand what waits to the mail server once more. */
export const sendAgain = async () => deliver((await mustBe('coach')).studioId);

/** As the log names whoever comes by a link. */
const SINGER = { actor: 'the singer', actorId: null };

const noLink = () => new Problem('This link is not valid any more. Ask your coach for a new one; nothing you practised is lost.', 404);

/** Run work as the holder of a token: in that singer's studio, for that singer. @throws Problem (404), the same for every kind of no. */
export async function asSinger<T>(token: string, work: (tx: StudioTx, singerId: string) => Promise<T>): Promise<T> {
  const found = /^[\w-]{20,100}$/.test(token) ? await linkByHash(hashOf(token)) : null;
  // Wrong ones are counted by their sender, which may be a whole school's: who has a right one is never held up by them.
  await (found ? countTry('practice', found.id) : countTry('link', await senderAddress()));
  if (!found) throw noLink();
  return inStudio(
    found.studioId,
    async (tx) => {
      if ((await findSinger(tx, found.singerId))?.archivedAt !== null) throw noLink();
      if (await linkUsed(tx, found.id)) await note(tx, { did: 'opened', what: 'page', singerId: found.singerId });
      return work(tx, found.singerId);
    },
    SINGER,
  );
}
