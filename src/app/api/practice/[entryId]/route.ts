import { jsonOf } from '@/server/body';
import { answer, AnswerInput } from '@/server/practice';
import { respond } from '@/server/respond';

export async function PUT(request: Request, { params }: { params: Promise<{ entryId: string }> }) {
  return respond(request, 'coach', async () => answer((await params).entryId, AnswerInput.parse(await jsonOf(request))));
}
