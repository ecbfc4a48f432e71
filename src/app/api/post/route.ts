import { handle } from '@/server/handle';
import { sendAgain } from '@/server/links';

/** Hand the messages that wait to the mail server. */
export const POST = handle('POST /api/post', sendAgain);
