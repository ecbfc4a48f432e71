import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';
import { MarkShape } from '@/core/format/take';
import { removeMark, setMark } from '@/server/takes';

type Context = { params: Promise<{ takeId: string; markId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => {
    const { takeId, markId } = await params;
    return setMark(takeId, markId, MarkShape.parse(await jsonOf(request)));
  });
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => {
    const { takeId, markId } = await params;
    return removeMark(takeId, markId);
  });
}
