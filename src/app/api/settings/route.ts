import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { changeSettings } from '@/studio/settings';

export const PUT = handle('PUT /api/settings', ({ body }) => inPresentStudio(changeSettings, body));
