import { found } from '@/server/found';
import { viewListening } from '@/server/lessons';
import { ListenRoom } from '@/ui/listen/ListenRoom';

export const metadata = { title: 'Listen' };

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  return <ListenRoom {...await found(viewListening((await params).singerId))} />;
}
