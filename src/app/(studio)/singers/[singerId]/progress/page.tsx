import { shown } from '@/server/found';
import { viewLog } from '@/studio/practice';
import { ProgressRoom } from '@/ui/progress/ProgressRoom';

export const metadata = { title: 'Progress' };

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  return <ProgressRoom view={await shown(viewLog, (await params).singerId)} />;
}
