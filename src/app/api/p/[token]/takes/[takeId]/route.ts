import { receivePracticeTake } from '@/server/practice';
import { respond } from '@/server/respond';
import { TakeMeta } from '@/server/takes';

type Context = { params: Promise<{ token: string; takeId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'anyone', async () => {
    const { token, takeId } = await params;
    const meta = TakeMeta.parse({ ...Object.fromEntries(new URL(request.url).searchParams), id: takeId });
    const length = request.headers.get('content-length');
    return receivePracticeTake(token, meta, request.body as AsyncIterable<Uint8Array> | null, length ? Number(length) : null);
  });
}
