import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { wavAnswer } from '@/server/wav-answer';
import { removeSpokenWord, spokenSound } from '@/studio/spoken';

export const GET = handle('GET /api/practice/[entryId]/spoken', async ({ params }) =>
  wavAnswer(await inPresentStudio(spokenSound, params.entryId)),
);
export const DELETE = handle('DELETE /api/practice/[entryId]/spoken', ({ params }) => inPresentStudio(removeSpokenWord, params.entryId));
