import { CodeInput, signInByCode } from '@/server/accounts';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

export async function POST(request: Request) {
  return respond(request, 'anyone', async () => signInByCode(CodeInput.parse(await jsonOf(request))));
}
