import { setNewPassword } from '@/server/accounts';
import { handle } from '@/server/handle';

export const POST = handle('POST /api/door/new-password', ({ body }) => setNewPassword(body));
