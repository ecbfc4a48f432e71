import { exportSinger } from '@/server/export';
import { respond } from '@/server/respond';

export async function GET(request: Request, { params }: { params: Promise<{ singerId: string }> }) {
  return respond(request, 'coach', async () => exportSinger((await params).singerId));
}
