import { signInByCode } from '@/server/accounts';
import { handle } from '@/server/handle';

export const POST = handle('POST /api/door/code', ({ body }) => signInByCode(body));
