import { found } from '@/server/found';
import { viewLog } from '@/server/practice';
import { ProgressRoom } from '@/ui/progress/ProgressRoom';

export const metadata = { title: 'Progress' };

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  return <ProgressRoom view={await found(viewLog((await params).singerId))} />;
}
