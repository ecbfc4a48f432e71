import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { takesToCompare } from '@/studio/singers';

export const GET = handle('GET /api/singers/[singerId]/takes', ({ params }) => inPresentStudio(takesToCompare, params.singerId));
