import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { removeTemplate, saveTemplate } from '@/studio/plans';

export const PUT = handle('PUT /api/templates/[templateId]', ({ body }) => inPresentStudio(saveTemplate, body));
export const DELETE = handle('DELETE /api/templates/[templateId]', ({ params }) => inPresentStudio(removeTemplate, params.templateId));
