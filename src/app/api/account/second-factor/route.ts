import { beginSecondFactor, CodeInput, confirmSecondFactor, endSecondFactor, OwnPasswordInput } from '@/server/accounts';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

export async function POST(request: Request) {
  return respond(request, 'reader', async () => beginSecondFactor(OwnPasswordInput.parse(await jsonOf(request))));
}

export async function PUT(request: Request) {
  return respond(request, 'reader', async () => confirmSecondFactor(CodeInput.parse(await jsonOf(request))));
}

export async function DELETE(request: Request) {
  return respond(request, 'reader', async () => endSecondFactor(OwnPasswordInput.parse(await jsonOf(request))));
}
