import { inviteMember, InviteInput } from '@/server/accounts';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

export async function POST(request: Request) {
  return respond(request, 'owner', async () => inviteMember(InviteInput.parse(await jsonOf(request))));
}
