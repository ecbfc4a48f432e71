import { changePassword } from '@/server/accounts';
import { handle } from '@/server/handle';

export const PUT = handle('PUT /api/account/password', ({ body }) => changePassword(body));
