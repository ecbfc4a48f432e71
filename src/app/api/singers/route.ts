import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { addSinger } from '@/studio/singers';

export const POST = handle('POST /api/singers', async ({ body }) => ({ id: await inPresentStudio(addSinger, body) }));
