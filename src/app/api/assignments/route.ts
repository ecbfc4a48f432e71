import { assign, AssignmentInput } from '@/server/plans';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

export async function POST(request: Request) {
  return respond(request, 'coach', async () => ({ id: await assign(AssignmentInput.parse(await jsonOf(request))) }));
}
