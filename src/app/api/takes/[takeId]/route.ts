import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';
import { awaitTake, discardTake, noteTake, receiveTake, TakeMeta, TakeNote } from '@/server/takes';

const LONGEST_WAIT_MS = 10_000;

type Context = { params: Promise<{ takeId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => {
    const query = Object.fromEntries(new URL(request.url).searchParams);
    const meta = TakeMeta.parse({ ...query, id: (await params).takeId });
    const length = request.headers.get('content-length');
    return receiveTake(meta, request.body as AsyncIterable<Uint8Array> | null, length ? Number(length) : null);
  });
}

export async function GET(request: Request, { params }: Context) {
  // The page waits for a fresh take's analysis here.
  return respond(request, 'reader', async () =>
    awaitTake((await params).takeId, new URL(request.url).searchParams.has('wait') ? LONGEST_WAIT_MS : 0),
  );
}

export async function PATCH(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => noteTake((await params).takeId, TakeNote.parse(await jsonOf(request))));
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => discardTake((await params).takeId));
}
