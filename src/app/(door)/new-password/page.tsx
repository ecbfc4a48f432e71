import type { Metadata } from 'next';
import { NewPassword } from '@/ui/door/NewPassword';

/** The address is a key: it is told to nobody. */
export const metadata: Metadata = { title: 'New password', referrer: 'no-referrer', robots: { index: false } };

export default async function Page({ searchParams }: { searchParams: Promise<{ token?: string }> }) {
  return <NewPassword token={(await searchParams).token ?? ''} />;
}
