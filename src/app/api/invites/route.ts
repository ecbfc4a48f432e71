import { inviteMember } from '@/server/accounts';
import { handle } from '@/server/handle';

export const POST = handle('POST /api/invites', ({ body }) => inviteMember(body));
