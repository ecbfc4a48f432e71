import { shown } from '@/server/found';
import { viewSettings } from '@/studio/settings';
import { SettingsRoom } from '@/ui/settings/SettingsRoom';

export const metadata = { title: 'Studio settings' };

export default async function Page() {
  return <SettingsRoom {...await shown(viewSettings)} />;
}
