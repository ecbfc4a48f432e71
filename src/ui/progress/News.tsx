'use client';
import { useRouter } from 'next/navigation';
import { useEffect } from 'react';
import { onChange } from '../../sync/changes';

/** Has the page drawn anew as soon as somebody has practised; a page nobody looks at waits until somebody does. */
export function News() {
  const router = useRouter();
  useEffect(() => {
    let due = false;
    const show = () => {
      if (!due || document.hidden) return;
      due = false;
      router.refresh();
    };
    const stop = onChange(({ what }) => {
      due ||= what === 'practised';
      show();
    });
    document.addEventListener('visibilitychange', show);
    return () => {
      stop();
      document.removeEventListener('visibilitychange', show);
    };
  }, [router]);
  return null;
}
