import { bringInBundle, takeOutBundle } from '@/server/bundle';
import { handle } from '@/server/handle';

export const GET = handle('GET /api/bundle', takeOutBundle);
export const POST = handle('POST /api/bundle', ({ query, request }) => bringInBundle(request.body, query.dry !== undefined));
