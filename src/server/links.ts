import type { Id } from '../core/format/id';
import { note } from '../data/audit';
import { inStudio } from '../data/client';
import { linkByHash, linkUsed } from '../data/links';
import { findSinger } from '../data/singers';
import type { Run } from '../studio/context';
import { makeLink } from '../studio/links';
import { viewMessages } from '../studio/post';
import { Refusal } from '../studio/refusal';
import { hashOf } from '../studio/tokens';
import { inPresentStudio, mustBe } from './let-in';
import { sayHere } from './language';
import { countTry } from './limits';
import { countPost, deliver, mailIsSet, publicAddress } from './mail';
import { afterAnswer, senderAddress } from './session';

/** A new link for a singer, handed to the mail server where one is set. `usedNow`: the address the coach uses. */
export async function sendLink(singerId: Id<'singer'>, usedNow?: string): Promise<{ address: string; mailed: boolean }> {
  const { studioId } = await mustBe('coach');
  await countPost(studioId);
  const { address, email } = await inPresentStudio(makeLink, singerId, publicAddress(usedNow), sayHere);
  afterAnswer(() => deliver(studioId));
  return { address, mailed: mailIsSet() && email !== null };
}

/** What the studio has to send; readers see none: a practice page's address is a key. @throws Refusal (not-allowed). */
export async function viewPost() {
  await mustBe('coach');
  return { mailSet: mailIsSet(), messages: await inPresentStudio(viewMessages) };
}

/** Hand what waits to the mail server once more. */
export const sendAgain = async () => deliver((await mustBe('coach')).studioId);

/** As the log names whoever comes by a link. */
const SINGER = { actor: 'the singer', actorId: null };

const noLink = () =>
  new Refusal('not-found', 'This link is not valid any more. Ask your coach for a new one; nothing you practised is lost.');

/**
 * Do work as the holder of a token, in that singer's studio; the singer's id goes before the other input.
 * @throws Refusal (not-found), the same for every kind of no.
 *
 * @example await bySinger(token)(viewPractice)
 */
export const bySinger =
  (token: string) =>
  async <Input extends unknown[], T>(
    work: (ctx: Parameters<Parameters<Run>[0]>[0], singerId: Id<'singer'>, ...input: Input) => Promise<T>,
    ...input: Input
  ): Promise<T> => {
    const found = /^[\w-]{20,100}$/.test(token) ? await linkByHash(hashOf(token)) : null;
    // Wrong ones are counted by their sender, which may be a whole school's: who has a right one is never held up by them.
    await (found ? countTry('practice', found.id) : countTry('link', await senderAddress()));
    if (!found) throw noLink();
    return inStudio(
      found.studioId,
      async (tx) => {
        if ((await findSinger(tx, found.singerId))?.archivedAt !== null) throw noLink();
        if (await linkUsed(tx, found.id)) await note(tx, { did: 'opened', what: 'page', singerId: found.singerId });
        return work({ tx, as: 'singer', now: new Date() }, found.singerId, ...input);
      },
      SINGER,
    );
  };
