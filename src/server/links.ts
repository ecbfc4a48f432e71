import { createHash, randomBytes } from 'node:crypto';
import { addDays } from 'date-fns';
import { inStudio, StudioTx } from '../data/client';
import { insertLink, linkByHash, linkUsed, messagesOf, presentLink, revokeLinks } from '../data/links';
import { dayOf } from './day';
import { Problem } from './problem';
import { mustFindSinger } from './singers';
import { countTry, mayTry } from './limits';
import { deliver, mailIsSet, post } from './mail';
import { senderAddress } from './session';
import { inPresentStudio, mustBe } from './studio';

const TOKEN_BYTES = 32;
/** A link is good for half a year; a new one is a click. */
const LASTS_DAYS = 180;

/** A token good for a door, and what is kept of it. */
export const newToken = () => randomBytes(TOKEN_BYTES).toString('base64url');
export const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');

/** A new link for a singer; any older one ends. The token is in the answer and the message only, never kept. */
export async function makeLink(singerId: string, origin: string): Promise<{ address: string; mailed: boolean }> {
  const { studioId, ...made } = await inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, singerId);
    await revokeLinks(tx, singerId);
    const token = newToken();
    const expiresAt = addDays(new Date(), LASTS_DAYS);
    await insertLink(tx, singerId, hashOf(token), expiresAt);
    const address = `${origin}/p/${token}`;
    await post(tx, {
      singerId,
      recipient: singer.name,
      address: singer.email,
      subject: 'Your practice page',
      body: `${singer.name},\n\nyour practice page is ready. Open it on your phone and keep it on the home screen:\n\n${address}\n\nThe link is yours alone; whoever has it sees your exercises. It is good until ${dayOf(expiresAt)}.`,
    });
    return { address, studioId: tx.studioId, mailed: mailIsSet() && singer.email !== null };
  });
  await deliver(studioId);
  return made;
}

export const endLink = (singerId: string) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, singerId);
    await revokeLinks(tx, singerId);
  });

export const linkOf = (singerId: string) => inPresentStudio((tx) => presentLink(tx, singerId));

/** What the studio has to send; readers see none: a practice page's address is a key. @throws Problem (403). */
export async function viewMessages() {
  const { role } = await mustBe('coach');
  return { mailSet: mailIsSet(), messages: await inPresentStudio((tx) => messagesOf(tx, role === 'owner')) };
}

/** Hand what waits to the mail server once more. */
export const sendAgain = async () => deliver((await mustBe('coach')).studioId);

/** Run work as the holder of a token: in that singer's studio, for that singer. @throws Problem (404), the same for every kind of no. */
export async function asSinger<T>(token: string, work: (tx: StudioTx, singerId: string) => Promise<T>): Promise<T> {
  const sender = await senderAddress();
  await mayTry('link', sender);
  const found = /^[\w-]{20,100}$/.test(token) ? await linkByHash(hashOf(token)) : null;
  if (found) await countTry('practice', found.id);
  else await countTry('link', sender);
  if (!found) throw new Problem('This link is not valid any more. Ask your coach for a new one; nothing you practised is lost.', 404);
  return inStudio(
    found.studioId,
    async (tx) => {
      await linkUsed(tx, found.id);
      return work(tx, found.singerId);
    },
    { actor: 'the singer' },
  );
}
