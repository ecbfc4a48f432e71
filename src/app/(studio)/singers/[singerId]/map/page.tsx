import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { named, shown } from '@/server/found';
import { viewSinger } from '@/studio/singers';
import { MapRoom } from '@/ui/map/MapRoom';

export const generateMetadata = () => titled(texts('Map'));

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  const { singer, map, takes, school } = await shown(viewSinger, (await named(params)).singerId);
  return <MapRoom singer={singer} map={map} takes={takes} school={school} />;
}
