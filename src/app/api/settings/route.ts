import { StudioShape } from '@/core/format/studio';
import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';
import { changeSettings } from '@/server/settings';

export async function PUT(request: Request) {
  return respond(request, 'owner', async () => changeSettings(StudioShape.parse(await jsonOf(request))));
}
