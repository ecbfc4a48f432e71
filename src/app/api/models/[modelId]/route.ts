import { MOST_SHORT_BYTES } from '@/core/format/short-sound';
import { bytesOf } from '@/server/body';
import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { modelSound, removeModel, saveModel } from '@/studio/models';
import { wavAnswer } from '@/server/wav-answer';

export const PUT = handle('PUT /api/models/[modelId]', async ({ query, request }) =>
  inPresentStudio(saveModel, query, await bytesOf(request, MOST_SHORT_BYTES)),
);
export const GET = handle('GET /api/models/[modelId]', async ({ params }) => wavAnswer(await inPresentStudio(modelSound, params.modelId)));
export const DELETE = handle('DELETE /api/models/[modelId]', ({ params }) => inPresentStudio(removeModel, params.modelId));
