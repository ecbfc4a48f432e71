import { found } from '@/server/found';
import { viewLesson } from '@/server/lessons';
import { LessonRoom } from '@/ui/lesson/LessonRoom';

export const metadata = { title: 'Lesson' };

export default async function Page({ params }: { params: Promise<{ singerId: string; lessonId: string }> }) {
  const { singerId, lessonId } = await params;
  return <LessonRoom view={await found(viewLesson(singerId, lessonId))} />;
}
