import { askNewPassword, ForgotInput } from '@/server/accounts';
import { respond } from '@/server/respond';

export async function POST(request: Request) {
  return respond(request, 'anyone', async () => askNewPassword(ForgotInput.parse(await request.json())));
}
