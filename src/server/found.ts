import { notFound } from 'next/navigation';
import { Problem } from './problem';

/** For pages: the value, or the page that says there is no such thing. */
export async function found<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (error instanceof Problem && error.status === 404) notFound();
    throw error;
  }
}
