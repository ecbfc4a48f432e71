import { handle } from '@/server/handle';
import { bySinger } from '@/server/links';
import { addEntries } from '@/studio/practice';

export const POST = handle('POST /api/p/[token]/entries', ({ params, body }) => bySinger(params.token)(addEntries, body));
