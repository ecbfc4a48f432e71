import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { assignTogether } from '@/studio/together';

export const POST = handle('POST /api/together', ({ body }) => inPresentStudio(assignTogether, body));
