import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { named, shown } from '@/server/found';
import { takesToCompare, viewNames, viewSinger } from '@/studio/singers';
import { viewTake } from '@/studio/takes';
import { ReviewRoom } from '@/ui/review/ReviewRoom';

export const generateMetadata = () => titled(texts('Review'));

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ singerId: string; takeId: string }>;
  searchParams: Promise<{ at?: string }>;
}) {
  const { singerId, takeId } = await named(params);
  const { singer, map } = await shown(viewSinger, singerId);
  const view = await shown(viewTake, takeId);
  const others = (await shown(takesToCompare, singerId)).filter((t) => t.id !== takeId);
  return (
    <ReviewRoom
      key={takeId}
      singer={singer}
      map={map}
      view={view}
      atS={Number((await searchParams).at) || 0}
      others={others}
      singers={await shown(viewNames)}
    />
  );
}
