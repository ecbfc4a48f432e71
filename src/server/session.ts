import { subDays } from 'date-fns';
import { headers } from 'next/headers';
import { after } from 'next/server';
import { cache } from 'react';
import { Member, placeOf } from '../data/door';
import { auth, LONGEST_SESSION_DAYS } from './auth';

/** Who asks, by the request's cookie; null: nobody, or an account that has no place in a studio (any more). Looked up once a page. */
export const presentMember = cache(async (): Promise<Member | null> => {
  const signedIn = await auth().api.getSession({ headers: await headers() });
  if (!signedIn || signedIn.session.createdAt < subDays(new Date(), LONGEST_SESSION_DAYS)) return null;
  const { id, name, email } = signedIn.user;
  const place = await placeOf(id);
  return place ? { userId: id, name, email, ...place } : null;
});

/**
 * From where a request comes, to count tries by: what the server or its proxy noted last. Whoever reaches the server without a proxy
 * can write it himself, which is why wrong passwords are counted per account as well.
 */
export async function senderAddress(): Promise<string> {
  return (await headers()).get('x-forwarded-for')?.split(',').at(-1)?.trim() || 'unknown';
}

/** Do something when the answer is on its way: nobody waits for a mail server, and how long it takes tells nobody anything. */
export const afterAnswer = (work: () => Promise<unknown>): void => after(work);
