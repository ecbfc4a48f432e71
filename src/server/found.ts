import { headers } from 'next/headers';
import { notFound, redirect } from 'next/navigation';
import { areIds, IdsIn } from '../core/format/id';
import type { Run } from '../studio/context';
import { Refusal } from '../studio/refusal';
import { inPresentStudio } from './let-in';

/** For pages: the value, or the page that says why not: to sign in, not allowed, or no such thing. */
export async function found<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (!(error instanceof Refusal)) throw error;
    // The path is noted by src/proxy.ts.
    if (error.code === 'signed-out') redirect(`/sign-in?to=${encodeURIComponent((await headers()).get('x-wendel-path') ?? '/')}`);
    if (error.code === 'not-allowed') redirect('/not-allowed');
    if (error.code === 'too-often') redirect('/too-often');
    if (error.code === 'not-found') notFound();
    throw error;
  }
}

/** What a page shows of the studio of whoever asks, or the page that says why not. @example await shown(viewSinger, singerId) */
export const shown: Run = (work, ...input) => found(inPresentStudio(work, ...input));

/** What a page's address names; where it can't be the id of anything there is no such page. @example const { singerId } = await named(params) */
export async function named<Names extends string>(params: Promise<Record<Names, string>>): Promise<IdsIn<Names>> {
  const names = await params;
  return areIds(names) ? names : notFound();
}
