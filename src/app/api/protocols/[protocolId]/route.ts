import { ProtocolShape } from '@/core/format/lesson';
import { removeProtocol, saveProtocol } from '@/server/lessons';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ protocolId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'coach', async () =>
    saveProtocol(ProtocolShape.parse({ ...((await jsonOf(request)) as object), id: (await params).protocolId })),
  );
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => removeProtocol((await params).protocolId));
}
