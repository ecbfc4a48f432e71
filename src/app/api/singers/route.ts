import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';
import { SingerShape } from '@/core/format/singer';
import { addSinger } from '@/server/singers';

export async function POST(request: Request) {
  return respond(request, 'coach', async () => ({ id: await addSinger(SingerShape.parse(await jsonOf(request))) }));
}
