import { startTransition, useEffect, useState } from 'react';

/** How much of a long list is drawn: the first so many with the page, so that the first screen is there at once, then all of it. */
export function useInTwoParts(first: number): number {
  const [most, setMost] = useState(first);
  useEffect(() => startTransition(() => setMost(Infinity)), []);
  return most;
}
