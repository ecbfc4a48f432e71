import { addEntries, EntriesInput } from '@/server/practice';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ token: string }> };

export async function POST(request: Request, { params }: Context) {
  return respond(request, 'anyone', async () => addEntries((await params).token, EntriesInput.parse(await jsonOf(request))));
}
