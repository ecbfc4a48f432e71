import { news } from '@/server/practice';
import { respond } from '@/server/respond';

export async function GET(request: Request) {
  return respond(request, 'reader', news);
}
