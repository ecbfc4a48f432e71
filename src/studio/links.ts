import type { Id } from '../core/format/id';
import { addDays } from 'date-fns';
import { said, Said } from '../core/words/said';
import { insertLink, revokeLinks } from '../data/links';
import type { Context } from './context';
import { dayOf } from './day';
import { post } from './post';
import { mustFindSinger } from './singers';
import { hashOf, newToken } from './tokens';

/** Says something in a reader's language. */
type Say = (what: Said) => Promise<string>;

/** A link is good for half a year; a new one is a click. */
const LASTS_DAYS = 180;

/**
 * A new link to a singer's own page under an address of this Wendel (`at`), and the message that carries it; any older link ends. The
 * token is in the answer and the message only, never kept. The message is written in the language `t` speaks.
 */
export async function makeLink(
  { tx, now }: Context,
  singerId: Id<'singer'>,
  at: string,
  t: Say,
): Promise<{ address: string; email: string | null }> {
  const singer = await mustFindSinger(tx, singerId);
  await revokeLinks(tx, singerId);
  const token = newToken();
  const expiresAt = addDays(now, LASTS_DAYS);
  await insertLink(tx, singerId, hashOf(token), expiresAt);
  const address = `${at}/p/${token}`;
  await post(tx, {
    singerId,
    recipient: singer.name,
    address: singer.email,
    subject: await t('Your practice page'),
    body: await t(
      said(
        '{name},\n\nyour practice page is ready. Open it on your phone and keep it on the home screen:\n\n{address}\n\nThe link is yours alone; whoever has it sees your exercises. It is good until {day}.',
        { name: { own: singer.name }, address: { own: address }, day: { own: dayOf(expiresAt) } },
      ),
    ),
  });
  return { address, email: singer.email };
}

export async function endLink({ tx }: Context, singerId: Id<'singer'>): Promise<void> {
  await mustFindSinger(tx, singerId);
  await revokeLinks(tx, singerId);
}
