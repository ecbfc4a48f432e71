import { handle } from '@/server/handle';
import { inPresentStudio } from '@/server/let-in';
import { removeProtocol, saveProtocol } from '@/studio/lessons';

export const PUT = handle('PUT /api/protocols/[protocolId]', ({ body }) => inPresentStudio(saveProtocol, body));
export const DELETE = handle('DELETE /api/protocols/[protocolId]', ({ params }) => inPresentStudio(removeProtocol, params.protocolId));
