import { endOwnSession } from '@/server/accounts';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ sessionId: string }> };

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'reader', async () => endOwnSession((await params).sessionId));
}
