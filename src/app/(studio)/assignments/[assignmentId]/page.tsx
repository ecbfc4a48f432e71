import { shown } from '@/server/found';
import { viewAssignment } from '@/studio/plans';
import { PracticeSheet } from '@/ui/sheet/PracticeSheet';

export const metadata = { title: 'Practice sheet' };

export default async function Page({ params }: { params: Promise<{ assignmentId: string }> }) {
  return <PracticeSheet view={await shown(viewAssignment, (await params).assignmentId)} />;
}
