import { respond } from '@/server/respond';
import { discardTake, receiveTake, TakeMeta, viewTake } from '@/server/takes';

type Context = { params: Promise<{ takeId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, async () => {
    const query = Object.fromEntries(new URL(request.url).searchParams);
    const meta = TakeMeta.parse({ ...query, id: (await params).takeId });
    const length = request.headers.get('content-length');
    return receiveTake(meta, request.body as AsyncIterable<Uint8Array> | null, length ? Number(length) : null);
  });
}

export async function GET(request: Request, { params }: Context) {
  return respond(request, async () => viewTake((await params).takeId));
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, async () => discardTake((await params).takeId));
}
