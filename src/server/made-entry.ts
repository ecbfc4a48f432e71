// For tests: use cases entered as a request enters them.
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
  <Input extends unknown[], T>(useCase: (ctx: Context, singerId: string, ...input: Input) => Promise<T>) =>
  (token: string, ...input: Input): Promise<T> =>
    bySinger(token)((ctx, singerId) => useCase(ctx, singerId, ...input));
