import { inviteMember, InviteInput } from '@/server/accounts';
import { respond } from '@/server/respond';

export async function POST(request: Request) {
  return respond(request, 'owner', async () => inviteMember(InviteInput.parse(await request.json())));
}
