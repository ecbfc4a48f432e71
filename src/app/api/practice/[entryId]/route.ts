import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { answer } from '@/studio/practice';

export const PUT = handle('PUT /api/practice/[entryId]', ({ params, body }) => inPresentStudio(answer, params.entryId, body));
