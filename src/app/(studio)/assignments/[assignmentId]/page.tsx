import { found } from '@/server/found';
import { viewAssignment } from '@/server/plans';
import { PracticeSheet } from '@/ui/sheet/PracticeSheet';

export const metadata = { title: 'Practice sheet' };

export default async function Page({ params }: { params: Promise<{ assignmentId: string }> }) {
  return <PracticeSheet view={await found(viewAssignment((await params).assignmentId))} />;
}
