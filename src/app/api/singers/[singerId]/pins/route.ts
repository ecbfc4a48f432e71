import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';
import { PinInput, pinValue } from '@/server/singers';

export async function PUT(request: Request, { params }: { params: Promise<{ singerId: string }> }) {
  return respond(request, 'coach', async () => pinValue((await params).singerId, PinInput.parse(await jsonOf(request))));
}
