import { shown } from '@/server/found';
import { viewListening } from '@/studio/lessons';
import { ListenRoom } from '@/ui/listen/ListenRoom';

export const metadata = { title: 'Listen' };

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  return <ListenRoom {...await shown(viewListening, (await params).singerId)} />;
}
