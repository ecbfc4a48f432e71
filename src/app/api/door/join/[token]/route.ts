import { join } from '@/server/accounts';
import { handle } from '@/server/handle';

export const POST = handle('POST /api/door/join/[token]', ({ params, body }) => join(params.token, body));
