import { createHash, randomBytes } from 'node:crypto';
import { addDays } from 'date-fns';
import { inStudio, StudioTx } from '../data/client';
import { insertLink, insertMessage, linkByHash, linkUsed, messagesOf, presentLink, revokeLinks } from '../data/links';
import { Problem } from './problem';
import { mustFindSinger } from './singers';
import { inPresentStudio } from './studio';

const TOKEN_BYTES = 32;
/** A link is good for half a year; a new one is a click. */
const LASTS_DAYS = 180;

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');

/** A new link for a singer; any older one ends. The token is in the answer and the message only, never kept. */
export const makeLink = (singerId: string, origin: string) =>
  inPresentStudio(async (tx) => {
    const singer = await mustFindSinger(tx, singerId);
    await revokeLinks(tx, singerId);
    const token = randomBytes(TOKEN_BYTES).toString('base64url');
    const expiresAt = addDays(new Date(), LASTS_DAYS);
    await insertLink(tx, singerId, hashOf(token), expiresAt);
    const address = `${origin}/p/${token}`;
    await insertMessage(tx, {
      singerId,
      recipient: singer.name,
      subject: 'Your practice page',
      body: `${singer.name},\n\nyour practice page is ready. Open it on your phone and keep it on the home screen:\n\n${address}\n\nThe link is yours alone; whoever has it sees your exercises. It is good until ${expiresAt.toISOString().slice(0, 10)}.`,
    });
    return { address };
  });

export const endLink = (singerId: string) =>
  inPresentStudio(async (tx) => {
    await mustFindSinger(tx, singerId);
    await revokeLinks(tx, singerId);
  });

export const linkOf = (singerId: string) => inPresentStudio((tx) => presentLink(tx, singerId));

export const viewMessages = () => inPresentStudio(messagesOf);

/** Run work as the holder of a token: in that singer's studio, for that singer. @throws Problem (404), the same for every kind of no. */
export async function asSinger<T>(token: string, work: (tx: StudioTx, singerId: string) => Promise<T>): Promise<T> {
  const found = /^[\w-]{20,100}$/.test(token) ? await linkByHash(hashOf(token)) : null;
  if (!found) throw new Problem('This link is not valid any more. Ask your coach for a new one; nothing you practised is lost.', 404);
  return inStudio(found.studioId, async (tx) => {
    await linkUsed(tx, found.id);
    return work(tx, found.singerId);
  });
}
