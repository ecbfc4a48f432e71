import { signUp } from '@/server/accounts';
import { handle } from '@/server/handle';

export const POST = handle('POST /api/door/sign-up', ({ body }) => signUp(body));
