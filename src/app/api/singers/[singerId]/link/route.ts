import { endLink, makeLink } from '@/server/links';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ singerId: string }> };

export async function POST(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => makeLink((await params).singerId, request.headers.get('origin') ?? undefined));
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => endLink((await params).singerId));
}
