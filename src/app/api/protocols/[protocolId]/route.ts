import { ProtocolInput, removeProtocol, saveProtocol } from '@/server/lessons';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ protocolId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'coach', async () =>
    saveProtocol(ProtocolInput.parse({ ...(await request.json()), id: (await params).protocolId })),
  );
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => removeProtocol((await params).protocolId));
}
