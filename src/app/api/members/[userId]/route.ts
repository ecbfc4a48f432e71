import { changeRole, dismiss, RoleInput } from '@/server/accounts';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ userId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'owner', async () => changeRole((await params).userId, RoleInput.parse(await jsonOf(request))));
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'owner', async () => dismiss((await params).userId));
}
