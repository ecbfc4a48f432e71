import { found } from '@/server/found';
import { viewPlan } from '@/server/plans';
import { PlanRoom } from '@/ui/plan/PlanRoom';

export const metadata = { title: 'Plan' };

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  return <PlanRoom view={await found(viewPlan((await params).singerId))} />;
}
