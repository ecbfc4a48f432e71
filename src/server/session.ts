import { headers } from 'next/headers';
import { cache } from 'react';
import { Member, placeOf } from '../data/door';
import { auth } from './auth';

/** Who asks, by the request's cookie; null: nobody, or an account that has no place in a studio (any more). Looked up once a page. */
export const presentMember = cache(async (): Promise<Member | null> => {
  const signedIn = await auth().api.getSession({ headers: await headers() });
  if (!signedIn) return null;
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
