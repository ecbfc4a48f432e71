import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { takeBackHeard } from '@/studio/ears';

export const DELETE = handle('DELETE /api/ears/answers', () => inPresentStudio(takeBackHeard));
