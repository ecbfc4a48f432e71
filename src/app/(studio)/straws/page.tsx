import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { found } from '@/server/found';
import { mustBe } from '@/server/let-in';
import { StrawBench } from '@/ui/straw/StrawBench';

export const generateMetadata = () => titled(texts('Straws'));

export default async function Page() {
  await found(mustBe('reader'));
  return <StrawBench />;
}
