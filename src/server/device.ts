import { createHmac, randomBytes, timingSafeEqual } from 'node:crypto';
import { cookies } from 'next/headers';

/**
 * A browser that has signed in with an account is known by a cookie, which proves nothing but that: its tries are counted apart from
 * strangers', so that nobody can lock a coach out by trying wrong passwords. (OWASP, "Slow down online guessing attacks with device
 * cookies".)
 */
const NAME = 'wendel.device';
const DAYS = 180;

const signed = (id: string, email: string) =>
  createHmac('sha256', process.env.WENDEL_SECRET!).update(`device ${id} ${email}`).digest('base64url');

/** The present browser's name for an account; null: it never signed in with it. */
export async function knownDevice(email: string): Promise<string | null> {
  const [id, mac] = (await cookies()).get(NAME)?.value.split('.') ?? [];
  if (!id || !mac) return null;
  const [given, right] = [Buffer.from(mac), Buffer.from(signed(id, email))];
  return given.length === right.length && timingSafeEqual(given, right) ? id : null;
}

/** The cookie by which a browser is known from now on, as a header's value. */
export function deviceCookie(email: string): string {
  const id = randomBytes(16).toString('base64url');
  const secure = process.env.WENDEL_HTTPS === '1' ? '; Secure' : '';
  return `${NAME}=${id}.${signed(id, email)}; Path=/api/door; Max-Age=${DAYS * 86_400}; HttpOnly; SameSite=Lax${secure}`;
}
