import { found } from '@/server/found';
import { mustBe } from '@/server/let-in';
import { StrawBench } from '@/ui/straw/StrawBench';

export const metadata = { title: 'Straws' };

export default async function Page() {
  await found(mustBe('reader'));
  return <StrawBench />;
}
