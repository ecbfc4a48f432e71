import { bringInBundle, takeOutBundle } from '@/server/bundle';
import { respond } from '@/server/respond';

export async function GET(request: Request) {
  return respond(request, 'owner', takeOutBundle);
}

/** `?dry`: only say what would come. */
export async function POST(request: Request) {
  return respond(request, 'owner', () => bringInBundle(request.body, new URL(request.url).searchParams.has('dry')));
}
