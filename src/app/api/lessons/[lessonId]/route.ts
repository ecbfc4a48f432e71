import { changeLesson, LessonChange } from '@/server/lessons';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

export async function PUT(request: Request, { params }: { params: Promise<{ lessonId: string }> }) {
  return respond(request, 'coach', async () => changeLesson((await params).lessonId, LessonChange.parse(await jsonOf(request))));
}
