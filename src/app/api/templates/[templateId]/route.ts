import { removeTemplate, saveTemplate, TemplateInput } from '@/server/plans';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';

type Context = { params: Promise<{ templateId: string }> };

export async function PUT(request: Request, { params }: Context) {
  return respond(request, 'coach', async () =>
    saveTemplate(TemplateInput.parse({ ...((await jsonOf(request)) as object), id: (await params).templateId })),
  );
}

export async function DELETE(request: Request, { params }: Context) {
  return respond(request, 'coach', async () => removeTemplate((await params).templateId));
}
