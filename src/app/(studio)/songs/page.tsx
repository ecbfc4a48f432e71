import { found } from '@/server/found';
import { viewSongs } from '@/server/songs';
import { SongsRoom } from '@/ui/songs/SongsRoom';

export const metadata = { title: 'Songs' };

export default async function Page() {
  return <SongsRoom {...await found(viewSongs())} />;
}
