import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { shown } from '@/server/found';
import { viewEars } from '@/studio/ears';
import { EarRoom } from '@/ui/ears/EarRoom';

export const generateMetadata = () => titled(texts('Ears'));

export default async function Page() {
  return <EarRoom ears={await shown(viewEars)} />;
}
