import { PlanInput, savePlan } from '@/server/plans';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ singerId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => savePlan((await params).singerId, PlanInput.parse(await jsonOf(request))));
}
