import { modelForSinger } from '@/server/models';
import { respond } from '@/server/respond';

export async function GET(request: Request, { params }: { params: Promise<{ token: string; modelId: string }> }) {
  return respond(request, 'anyone', async () => {
    const { token, modelId } = await params;
    return modelForSinger(token, modelId);
  });
}
