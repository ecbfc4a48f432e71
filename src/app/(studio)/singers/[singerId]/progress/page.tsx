import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { named, shown } from '@/server/found';
import { viewLog } from '@/studio/practice';
import { ProgressRoom } from '@/ui/progress/ProgressRoom';

export const generateMetadata = () => titled(texts('Progress'));

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  return <ProgressRoom view={await shown(viewLog, (await named(params)).singerId)} />;
}
