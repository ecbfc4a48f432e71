import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { named, shown } from '@/server/found';
import { viewSong } from '@/studio/songs';
import { SongRoom } from '@/ui/songs/SongRoom';

export const generateMetadata = () => titled(texts('Song'));

export default async function Page({ params }: { params: Promise<{ singerId: string; songId: string }> }) {
  const { singerId, songId } = await named(params);
  return <SongRoom view={await shown(viewSong, singerId, songId)} />;
}
