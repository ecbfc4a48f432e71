import { jsonOf } from '@/server/body';
import { respond } from '@/server/respond';
import { changeSettings, SettingsInput } from '@/server/settings';

export async function PUT(request: Request) {
  return respond(request, 'owner', async () => changeSettings(SettingsInput.parse(await jsonOf(request))));
}
