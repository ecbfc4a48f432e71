import type { Metadata } from 'next';
import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { viewInvite } from '@/server/accounts';
import { found } from '@/server/found';
import { Join } from '@/ui/door/Join';

export const generateMetadata = async (): Promise<Metadata> => ({
  ...(await titled(texts('Join a studio'))),
  referrer: 'no-referrer',
  robots: { index: false },
});

export default async function Page({ params }: { params: Promise<{ token: string }> }) {
  const { token } = await params;
  const { email, studio } = await found(viewInvite(token));
  return <Join token={token} email={email} studio={studio} />;
}
