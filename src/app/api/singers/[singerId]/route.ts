import { z } from 'zod';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';
import { SingerShape } from '@/core/format/singer';
import { editSinger, removeSinger, setArchived } from '@/server/singers';

type Context = { params: Promise<{ singerId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => editSinger((await params).singerId, SingerShape.parse(await jsonOf(request))));
}

export async function PATCH(request: Request, { params }: Context) {
  return respond(request, 'coach', async () =>
    setArchived((await params).singerId, z.object({ archived: z.boolean() }).parse(await jsonOf(request)).archived),
  );
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'coach', async () =>
    removeSinger((await params).singerId, z.object({ name: z.string() }).parse(await jsonOf(request)).name),
  );
}
