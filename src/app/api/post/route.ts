import { sendAgain } from '@/server/links';
import { respond } from '@/server/respond';

/** Hand the messages that wait to the mail server. */
export async function POST(request: Request) {
  return respond(request, 'coach', sendAgain);
}
