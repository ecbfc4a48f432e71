import { z } from 'zod';
import { respond } from '@/server/respond';
import { editSinger, removeSinger, setArchived, SingerInput } from '@/server/singers';

type Context = { params: Promise<{ singerId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => editSinger((await params).singerId, SingerInput.parse(await request.json())));
}

export async function PATCH(request: Request, { params }: Context) {
  return respond(request, 'coach', async () =>
    setArchived((await params).singerId, z.object({ archived: z.boolean() }).parse(await request.json()).archived),
  );
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'coach', async () =>
    removeSinger((await params).singerId, z.object({ name: z.string() }).parse(await request.json()).name),
  );
}
