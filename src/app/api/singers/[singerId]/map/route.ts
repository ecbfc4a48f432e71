import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { mapAsOf } from '@/studio/singers';

export const GET = handle('GET /api/singers/[singerId]/map', ({ params, query }) => inPresentStudio(mapAsOf, params.singerId, query.until));
