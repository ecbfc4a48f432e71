import { signOut } from '@/server/accounts';
import { respond } from '@/server/respond';

export async function POST(request: Request) {
  return respond(request, 'reader', signOut);
}
