import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { changeLesson } from '@/studio/lessons';

export const PUT = handle('PUT /api/lessons/[lessonId]', ({ params, body }) => inPresentStudio(changeLesson, params.lessonId, body));
