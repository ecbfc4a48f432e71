import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';
import { MOST_SONG_BYTES, removeSong, saveSong, SongInput } from '@/server/songs';

type Context = { params: Promise<{ songId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'coach', async () =>
    saveSong(SongInput.parse({ ...((await jsonOf(request, MOST_SONG_BYTES)) as object), id: (await params).songId })),
  );
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => removeSong((await params).songId));
}
