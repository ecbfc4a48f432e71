import { ChosenShape } from '@/core/format/song';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';
import { decide, forgetChoice } from '@/server/songs';

type Context = { params: Promise<{ singerId: string; songId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => {
    const { singerId, songId } = await params;
    return decide(singerId, songId, ChosenShape.parse(await jsonOf(request)));
  });
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => {
    const { singerId, songId } = await params;
    return forgetChoice(singerId, songId);
  });
}
