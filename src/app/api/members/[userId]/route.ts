import { changeRole, dismiss } from '@/server/accounts';
import { handle } from '@/server/handle';

export const PUT = handle('PUT /api/members/[userId]', ({ params, body }) => changeRole(params.userId, body));
export const DELETE = handle('DELETE /api/members/[userId]', ({ params }) => dismiss(params.userId));
