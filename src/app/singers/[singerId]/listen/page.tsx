import { found } from '@/server/found';
import { viewSinger } from '@/server/singers';
import { ListenRoom } from '@/ui/listen/ListenRoom';

export const metadata = { title: 'Listen' };

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  const { singer, map } = await found(viewSinger((await params).singerId));
  return <ListenRoom singer={singer} map={map} />;
}
