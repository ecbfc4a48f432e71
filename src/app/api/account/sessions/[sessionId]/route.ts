import { endOwnSession } from '@/server/accounts';
import { handle } from '@/server/handle';

export const DELETE = handle('DELETE /api/account/sessions/[sessionId]', ({ params }) => endOwnSession(params.sessionId));
