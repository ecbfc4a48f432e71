import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { sayHeard } from '@/studio/ears';

export const PUT = handle('PUT /api/ears/answers/[answerId]', ({ body }) => inPresentStudio(sayHeard, body));
