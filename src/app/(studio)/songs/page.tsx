import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { shown } from '@/server/found';
import { viewSongs } from '@/studio/songs';
import { SongsRoom } from '@/ui/songs/SongsRoom';

export const generateMetadata = () => titled(texts('Songs'));

export default async function Page() {
  return <SongsRoom {...await shown(viewSongs)} />;
}
