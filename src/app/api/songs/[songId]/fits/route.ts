import { respond } from '@/server/respond';
import { fitsOf } from '@/server/songs';

type Context = { params: Promise<{ songId: string }> };

/** For each singer the key of this song that suits best. */
export async function GET(request: Request, { params }: Context) {
  return respond(request, 'reader', async () => fitsOf((await params).songId));
}
