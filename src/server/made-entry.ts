// For tests: use cases entered as a request enters them.
import type { Id } from '../core/format/id';
import type { Client } from 'pg';
import type { Context } from '../studio/context';
import { inPresentStudio } from './let-in';
import { bySinger } from './links';

/** A use case as whoever is signed in enters it. */
export const entered =
  <Input extends unknown[], T>(useCase: (ctx: Context, ...input: Input) => T | Promise<T>) =>
  (...input: Input): Promise<T> =>
    inPresentStudio(async (ctx) => useCase(ctx, ...input));

/** A use case as the holder of a singer's link enters it. */
export const enteredByLink =
  <Input extends unknown[], T>(useCase: (ctx: Context, singerId: Id<'singer'>, ...input: Input) => Promise<T>) =>
  (token: string, ...input: Input): Promise<T> =>
    bySinger(token)((ctx, singerId) => useCase(ctx, singerId, ...input));

/** A studio of a test file's own, behind the first one: other files go on there at the same time. Its id. */
export const madeStudio = async (owner: Client, name: string): Promise<Id<'studio'>> =>
  (await owner.query("insert into studio (name, created_at) values ($1, now() + interval '1 day') returning id", [name])).rows[0].id;

/** Take such a studio away, singers first: what is written down of their going belongs to a studio that is there. */
export async function takeAway(owner: Client, studioId: Id<'studio'>): Promise<void> {
  await owner.query('delete from singer where studio_id = $1', [studioId]);
  await owner.query('delete from studio where id = $1', [studioId]);
}
