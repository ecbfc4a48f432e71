import { MOST_MODEL_BYTES } from '@/core/exercise/model';
import { bytesOf } from '@/server/body';
import { ModelMeta, modelSound, removeModel, saveModel } from '@/server/models';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ modelId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => {
    const query = Object.fromEntries(new URL(request.url).searchParams);
    await saveModel(ModelMeta.parse({ ...query, id: (await params).modelId }), await bytesOf(request, MOST_MODEL_BYTES));
  });
}

export async function GET(request: Request, { params }: Context) {
  return respond(request, 'reader', async () => modelSound((await params).modelId));
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => removeModel((await params).modelId));
}
