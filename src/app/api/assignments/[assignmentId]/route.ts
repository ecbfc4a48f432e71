import { assignedItems } from '@/server/plans';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ assignmentId: string }> };

export async function GET(request: Request, { params }: Context) {
  return respond(request, 'reader', async () => ({ items: await assignedItems((await params).assignmentId) }));
}
