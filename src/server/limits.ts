import { RateLimiterMemory } from 'rate-limiter-flexible';
import { Problem } from './problem';

/** How often something may be tried, per key, in a time. Counted in the one web process; a restart begins anew. */
const LIMITS = {
  /** Wrong passwords for one account. */
  password: { points: 20, duration: 15 * 60 },
  /** Wrong passwords, new accounts and messages from one sender. */
  door: { points: 100, duration: 15 * 60 },
  /** Addresses of practice pages that are none, from one sender. */
  link: { points: 60, duration: 15 * 60 },
  /** Lines and recordings by one practice page. */
  practice: { points: 300, duration: 10 * 60 },
} as const;

type Limiters = Record<keyof typeof LIMITS, RateLimiterMemory>;

// On globalThis: pages and routes may each have a copy of this module, and must count together.
const limiters = ((globalThis as unknown as { wendelLimits?: Limiters }).wendelLimits ??= Object.fromEntries(
  Object.entries(LIMITS).map(([name, limit]) => [name, new RateLimiterMemory({ ...limit, keyPrefix: name })]),
) as Limiters);

const tooMany = (ms: number) =>
  new Problem(`That was tried too often. Try again in ${Math.max(1, Math.ceil(ms / 60_000))} minutes; nothing is lost.`, 429);

/** Count one try. @throws Problem (429) when there were too many. */
export async function countTry(limit: keyof typeof LIMITS, key: string): Promise<void> {
  try {
    await limiters[limit].consume(key);
  } catch (refused) {
    throw tooMany((refused as { msBeforeNext: number }).msBeforeNext);
  }
}

/** Refuse when there were too many tries already, without counting one. @throws Problem (429). */
export async function mayTry(limit: keyof typeof LIMITS, key: string): Promise<void> {
  const state = await limiters[limit].get(key);
  if (state && state.remainingPoints <= 0) throw tooMany(state.msBeforeNext);
}

/** Forget the tries of a key that has proved itself. */
export const forgetTries = (limit: keyof typeof LIMITS, key: string) => limiters[limit].delete(key);
