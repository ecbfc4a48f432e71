import type { Metadata } from 'next';
import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { NewPassword } from '@/ui/door/NewPassword';

/** The address is a key: it is told to nobody. */
export const generateMetadata = async (): Promise<Metadata> => ({
  ...(await titled(texts('New password'))),
  referrer: 'no-referrer',
  robots: { index: false },
});

export default async function Page({ searchParams }: { searchParams: Promise<{ token?: string }> }) {
  return <NewPassword token={(await searchParams).token ?? ''} />;
}
