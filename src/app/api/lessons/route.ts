import { LessonInput, startLesson } from '@/server/lessons';
import { respond } from '@/server/respond';

export async function POST(request: Request) {
  return respond(request, 'coach', async () => startLesson(LessonInput.parse(await request.json())));
}
