'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';

/** Run a change of the settings, show what went wrong, and show the page anew. */
export function useAttempt() {
  const router = useRouter();
  const [problem, setProblem] = useState<string | null>(null);
  const attempt = async <T>(work: () => Promise<T>): Promise<T | undefined> => {
    setProblem(null);
    try {
      const value = await work();
      router.refresh();
      return value;
    } catch (error) {
      setProblem((error as Error).message);
      // What the page shows may be what was wished.
      router.refresh();
      return undefined;
    }
  };
  return { problem, attempt };
}
