import { changePassword, PasswordInput } from '@/server/accounts';
import { respond } from '@/server/respond';

export async function PUT(request: Request) {
  return respond(request, 'reader', async () => changePassword(PasswordInput.parse(await request.json())));
}
