import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { named, shown } from '@/server/found';
import { viewPlan } from '@/studio/plans';
import { PlanRoom } from '@/ui/plan/PlanRoom';

export const generateMetadata = () => titled(texts('Plan'));

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  return <PlanRoom view={await shown(viewPlan, (await named(params)).singerId)} />;
}
