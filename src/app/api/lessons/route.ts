import { LessonInput, startLesson } from '@/server/lessons';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

export async function POST(request: Request) {
  return respond(request, 'coach', async () => startLesson(LessonInput.parse(await jsonOf(request))));
}
