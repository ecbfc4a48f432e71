import { endInvite } from '@/server/accounts';
import { handle } from '@/server/handle';

export const DELETE = handle('DELETE /api/invites/[inviteId]', ({ params }) => endInvite(params.inviteId));
