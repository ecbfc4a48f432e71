import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { named, shown } from '@/server/found';
import { viewStudioSong } from '@/studio/songs';
import { StudioSong } from '@/ui/songs/StudioSong';

export const generateMetadata = () => titled(texts('Song'));

export default async function Page({ params }: { params: Promise<{ songId: string }> }) {
  return <StudioSong row={await shown(viewStudioSong, (await named(params)).songId)} />;
}
