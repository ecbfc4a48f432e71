import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { named, shown } from '@/server/found';
import { viewListening } from '@/studio/lessons';
import { ListenRoom } from '@/ui/listen/ListenRoom';

export const generateMetadata = () => titled(texts('Listen'));

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  return <ListenRoom {...await shown(viewListening, (await named(params)).singerId)} />;
}
