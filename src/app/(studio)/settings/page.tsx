import { viewSettings } from '@/server/settings';
import { SettingsRoom } from '@/ui/settings/SettingsRoom';

export const metadata = { title: 'Studio settings' };

export default async function Page() {
  return <SettingsRoom settings={await viewSettings()} />;
}
