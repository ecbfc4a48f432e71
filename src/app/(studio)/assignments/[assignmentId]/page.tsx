import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { named, shown } from '@/server/found';
import { viewAssignment } from '@/studio/plans';
import { PracticeSheet } from '@/ui/sheet/PracticeSheet';

export const generateMetadata = () => titled(texts('Practice sheet'));

export default async function Page({ params }: { params: Promise<{ assignmentId: string }> }) {
  return <PracticeSheet view={await shown(viewAssignment, (await named(params)).assignmentId)} />;
}
