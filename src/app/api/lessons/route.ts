import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { startLesson } from '@/studio/lessons';

export const POST = handle('POST /api/lessons', ({ body }) => inPresentStudio(startLesson, body));
