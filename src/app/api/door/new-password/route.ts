import { NewPasswordInput, setNewPassword } from '@/server/accounts';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

export async function POST(request: Request) {
  return respond(request, 'anyone', async () => setNewPassword(NewPasswordInput.parse(await jsonOf(request))));
}
