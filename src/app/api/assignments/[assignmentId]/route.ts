import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { assignedItems } from '@/studio/plans';

export const GET = handle('GET /api/assignments/[assignmentId]', async ({ params }) => ({
  items: await inPresentStudio(assignedItems, params.assignmentId),
}));
