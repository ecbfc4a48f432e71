import { found } from '@/server/found';
import { viewStudioSong } from '@/server/songs';
import { StudioSong } from '@/ui/songs/StudioSong';

export const metadata = { title: 'Song' };

export default async function Page({ params }: { params: Promise<{ songId: string }> }) {
  return <StudioSong row={await found(viewStudioSong((await params).songId))} />;
}
