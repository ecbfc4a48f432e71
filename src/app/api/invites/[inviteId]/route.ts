import { endInvite } from '@/server/accounts';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ inviteId: string }> };

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'owner', async () => endInvite((await params).inviteId));
}
