import { metrics } from '@/server/metrics';

export const dynamic = 'force-dynamic';

/** Figures for whoever watches over the machine (docs/operations.md). */
export async function GET(request: Request) {
  return metrics(request.headers.get('authorization'));
}
