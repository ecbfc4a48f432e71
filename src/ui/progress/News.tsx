'use client';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { request } from '../kit/request';

const EVERY_MS = 1500;

/** Has the page drawn anew as soon as somebody has practised; a page nobody looks at doesn't ask. */
export function News() {
  const router = useRouter();
  useEffect(() => {
    let known: string | null | undefined;
    const timer = setInterval(() => {
      if (document.hidden) return;
      request<{ at: string | null }>('/api/news').then(
        ({ at }) => {
          if (known !== undefined && at !== known) router.refresh();
          known = at;
        },
        () => undefined,
      );
    }, EVERY_MS);
    return () => clearInterval(timer);
  }, [router]);
  return null;
}
