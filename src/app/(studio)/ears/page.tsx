import { found } from '@/server/found';
import { mustBe } from '@/server/let-in';
import { EarRoom } from '@/ui/ears/EarRoom';

export const metadata = { title: 'Ears' };

export default async function Page() {
  await found(mustBe('reader'));
  return <EarRoom />;
}
