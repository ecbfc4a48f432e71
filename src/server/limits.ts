import { said } from '../core/words/said';
import { createHash } from 'node:crypto';
import pLimit from 'p-limit';
import { RateLimiterMemory, RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import { doorPool } from '../data/door';
import { Refusal } from '../studio/refusal';

const MINUTE_S = 60;
const DAY_S = 86_400;

/** How often something may be done, per key, in a time (our choice). Counted in the database: by all web processes together. */
const LIMITS = {
  /** Passwords for one account, from browsers that never signed in with it. */
  password: { points: 20, duration: 15 * MINUTE_S },
  /** The same, from one browser that has: what strangers try can't keep it out. */
  device: { points: 20, duration: 15 * MINUTE_S },
  /** Passwords, new accounts and messages asked for by one sender. */
  door: { points: 100, duration: 15 * MINUTE_S },
  /** Messages with a new password to one address: the last one counts, and stays good while more are asked for. */
  reset: { points: 1, duration: 10 * MINUTE_S },
  resets: { points: 10, duration: DAY_S },
  /** Addresses of practice pages that are none, from one sender. */
  link: { points: 60, duration: 15 * MINUTE_S },
  /** Lines and recordings by one practice page. */
  practice: { points: 300, duration: 10 * MINUTE_S },
  /** Messages the mail server takes to people outside, by one studio: invitations and practice pages. */
  post: { points: 500, duration: DAY_S },
} as const;
export type Limit = keyof typeof LIMITS;

const limiterOf = ([name, limit]: [string, (typeof LIMITS)[Limit]]) => [
  name,
  new RateLimiterPostgres({
    ...limit,
    keyPrefix: name,
    storeClient: doorPool(),
    storeType: 'pool',
    tableName: 'tries',
    tableCreated: true,
    clearExpiredByTimeout: true,
    // With the database away nothing else works either; until it is back each process counts on its own.
    insuranceLimiter: new RateLimiterMemory({ ...limit, keyPrefix: name }),
  }),
];

type Limiters = Record<Limit, RateLimiterPostgres>;
// On globalThis: pages and routes may each have a copy of this module.
const held = globalThis as unknown as { wendelLimits?: Limiters };
const limiters = (): Limiters =>
  (held.wendelLimits ??= Object.fromEntries((Object.entries(LIMITS) as [Limit, (typeof LIMITS)[Limit]][]).map(limiterOf)) as Limiters);

/** Keys are addresses of people and machines: only their hash is kept. */
const hashed = (key: string) => createHash('sha256').update(key).digest('base64url');

const tooMany = (ms: number) =>
  new Refusal(
    'too-often',
    said('That was tried too often. Try again in {minutes, plural, one {# minute} other {# minutes}}; nothing is lost.', {
      minutes: Math.max(1, Math.ceil(ms / 60_000)),
    }),
  );

/** Count one try, before what is tried is looked at: so that many at once are all counted. @throws Refusal (too-often) when there were too many. */
export async function countTry(limit: Limit, key: string): Promise<void> {
  try {
    await limiters()[limit].consume(hashed(key));
  } catch (refused) {
    if (!(refused instanceof RateLimiterRes)) throw refused;
    throw tooMany(refused.msBeforeNext);
  }
}

/** Whether one more is allowed; it is counted then. */
export const mayCount = (limit: Limit, key: string): Promise<boolean> =>
  countTry(limit, key).then(
    () => true,
    (error) => {
      if (error instanceof Refusal) return false;
      throw error;
    },
  );

/** Give a counted try back: it was a right one. */
export const giveBack = (limit: Limit, key: string) => limiters()[limit].reward(hashed(key));

/** Forget the tries of a key that has proved itself. */
export const forgetTries = (limit: Limit, key: string) => limiters()[limit].delete(hashed(key));

/** Passwords hashed at once: each takes a thread that pages need as well, and 16 MB. */
const HASHES_AT_ONCE = 2;
export const hashInTurn = pLimit(HASHES_AT_ONCE);

const running = new Map<string, number>();

/** Begin what lasts for a key, no more than so many times at once; the function that comes back ends it. @throws Refusal (too-often). */
export function beginOne(most: number, key: string): () => void {
  const now = running.get(key) ?? 0;
  if (now >= most) throw new Refusal('too-often', 'Too much of this is under way at once: wait until some of it is done; nothing is lost.');
  running.set(key, now + 1);
  return () => {
    const left = running.get(key)! - 1;
    if (left === 0) running.delete(key);
    else running.set(key, left);
  };
}

/** Do what lasts (an upload, a wait) for a key no more than so many times at once. @throws Refusal (too-often). */
export async function atMostAtOnce<T>(most: number, key: string, work: () => Promise<T>): Promise<T> {
  const end = beginOne(most, key);
  try {
    return await work();
  } finally {
    end();
  }
}
