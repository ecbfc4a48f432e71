import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';
import { addSinger, SingerInput } from '@/server/singers';

export async function POST(request: Request) {
  return respond(request, 'coach', async () => ({ id: await addSinger(SingerInput.parse(await jsonOf(request))) }));
}
