import { found } from '@/server/found';
import { viewSinger } from '@/server/singers';
import { viewTake } from '@/server/takes';
import { ReviewRoom } from '@/ui/review/ReviewRoom';

export const metadata = { title: 'Review' };

export default async function Page({
  params,
  searchParams,
}: {
  params: Promise<{ singerId: string; takeId: string }>;
  searchParams: Promise<{ at?: string }>;
}) {
  const { singerId, takeId } = await params;
  const { singer, map } = await found(viewSinger(singerId));
  return <ReviewRoom singer={singer} map={map} view={await found(viewTake(takeId))} atS={Number((await searchParams).at) || 0} />;
}
