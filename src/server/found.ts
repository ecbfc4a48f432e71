import { headers } from 'next/headers';
import { notFound, redirect } from 'next/navigation';
import { Problem } from './problem';

/** For pages: the value, or the page that says why not: to sign in, not allowed, or no such thing. */
export async function found<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (!(error instanceof Problem)) throw error;
    // The path is noted by src/proxy.ts.
    if (error.status === 401) redirect(`/sign-in?to=${encodeURIComponent((await headers()).get('x-wendel-path') ?? '/')}`);
    if (error.status === 403) redirect('/not-allowed');
    if (error.status === 429) redirect('/too-often');
    if (error.status === 404) notFound();
    throw error;
  }
}
