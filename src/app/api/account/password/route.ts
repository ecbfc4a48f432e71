import { changePassword, PasswordInput } from '@/server/accounts';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

export async function PUT(request: Request) {
  return respond(request, 'reader', async () => changePassword(PasswordInput.parse(await jsonOf(request))));
}
