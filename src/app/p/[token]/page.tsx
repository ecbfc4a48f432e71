import type { Metadata } from 'next';
import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { found } from '@/server/found';
import { bySinger } from '@/server/links';
import { viewPractice } from '@/studio/practice';
import { PracticeRoom } from '@/ui/practice/PracticeRoom';

type Props = { params: Promise<{ token: string }> };

export const generateMetadata = async ({ params }: Props): Promise<Metadata> => ({
  ...(await titled(texts('Practice'))),
  manifest: `/p/${(await params).token}/manifest.webmanifest`,
  icons: { apple: '/icon-180.png' },
  // The address is a key: it is told to nobody.
  referrer: 'no-referrer',
  robots: { index: false },
});

export default async function Page({ params }: Props) {
  const { token } = await params;
  return <PracticeRoom token={token} view={await found(bySinger(token)(viewPractice))} />;
}
