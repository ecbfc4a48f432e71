import { signIn } from '@/server/accounts';
import { handle } from '@/server/handle';

export const POST = handle('POST /api/door/sign-in', ({ body }) => signIn(body));
