import { askNewPassword } from '@/server/accounts';
import { handle } from '@/server/handle';

export const POST = handle('POST /api/door/forgot', ({ body }) => askNewPassword(body));
