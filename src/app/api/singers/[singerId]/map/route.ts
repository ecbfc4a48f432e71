import { z } from 'zod';
import { respond } from '@/server/respond';
import { mapAsOf } from '@/server/singers';

/** The map as it stood at `until` (ISO date and time). */
export async function GET(request: Request, { params }: { params: Promise<{ singerId: string }> }) {
  return respond(request, 'reader', async () =>
    mapAsOf((await params).singerId, z.coerce.date().parse(new URL(request.url).searchParams.get('until'))),
  );
}
