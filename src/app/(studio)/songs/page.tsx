import { shown } from '@/server/found';
import { viewSongs } from '@/studio/songs';
import { SongsRoom } from '@/ui/songs/SongsRoom';

export const metadata = { title: 'Songs' };

export default async function Page() {
  return <SongsRoom {...await shown(viewSongs)} />;
}
