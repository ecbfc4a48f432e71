import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { savePlan } from '@/studio/plans';

export const PUT = handle('PUT /api/singers/[singerId]/plan', ({ params, body }) => inPresentStudio(savePlan, params.singerId, body));
