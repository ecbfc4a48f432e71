import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { named, shown } from '@/server/found';
import { viewLesson } from '@/studio/lessons';
import { LessonRoom } from '@/ui/lesson/LessonRoom';

export const generateMetadata = () => titled(texts('Lesson'));

export default async function Page({ params }: { params: Promise<{ singerId: string; lessonId: string }> }) {
  const { singerId, lessonId } = await named(params);
  return <LessonRoom view={await shown(viewLesson, singerId, lessonId)} />;
}
