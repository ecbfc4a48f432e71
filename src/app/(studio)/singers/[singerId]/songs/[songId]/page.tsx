import { shown } from '@/server/found';
import { viewSong } from '@/studio/songs';
import { SongRoom } from '@/ui/songs/SongRoom';

export const metadata = { title: 'Song' };

export default async function Page({ params }: { params: Promise<{ singerId: string; songId: string }> }) {
  const { singerId, songId } = await params;
  return <SongRoom view={await shown(viewSong, singerId, songId)} />;
}
