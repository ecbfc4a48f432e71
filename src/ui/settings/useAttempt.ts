'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { Said } from '../../core/words/said';
import { saidOf } from '../../core/words/said-error';

/** Run a change of the settings, show what went wrong, and show the page anew. */
export function useAttempt() {
  const router = useRouter();
  const [problem, setProblem] = useState<Said | null>(null);
  const attempt = async <T>(work: () => Promise<T>): Promise<T | undefined> => {
    setProblem(null);
    try {
      const value = await work();
      router.refresh();
      return value;
    } catch (error) {
      setProblem(saidOf(error));
      // What the page shows may be what was wished.
      router.refresh();
      return undefined;
    }
  };
  return { problem, attempt };
}
