import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { crossingsAt } from '@/studio/crossings';

export const GET = handle('GET /api/singers/[singerId]/crossings', ({ params, query }) =>
  inPresentStudio(crossingsAt, params.singerId, query.midi),
);
