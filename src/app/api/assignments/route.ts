import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { assign } from '@/studio/plans';

export const POST = handle('POST /api/assignments', async ({ body }) => ({ id: await inPresentStudio(assign, body) }));
