import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { pinValue } from '@/studio/singers';

export const PUT = handle('PUT /api/singers/[singerId]/pins', ({ params, body }) => inPresentStudio(pinValue, params.singerId, body));
