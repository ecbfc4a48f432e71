import { handle } from '@/server/handle';
import { bySinger } from '@/server/links';
import { wavAnswer } from '@/server/wav-answer';
import { modelSound } from '@/studio/models';

/** Of the studio's models those for everybody, and for the singer whose page it is. */
export const GET = handle('GET /p/[token]/models/[modelId]', async ({ params: { token, modelId } }) =>
  wavAnswer(await bySinger(token)((ctx, singerId) => modelSound(ctx, modelId, singerId))),
);
