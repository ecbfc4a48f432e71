import { join, JoinInput } from '@/server/accounts';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ token: string }> };

export async function POST(request: Request, { params }: Context) {
  return respond(request, 'anyone', async () => join((await params).token, JoinInput.parse(await jsonOf(request))));
}
