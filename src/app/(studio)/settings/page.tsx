import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { shown } from '@/server/found';
import { viewSettings } from '@/studio/settings';
import { SettingsRoom } from '@/ui/settings/SettingsRoom';

export const generateMetadata = () => titled(texts('Studio settings'));

export default async function Page() {
  return <SettingsRoom {...await shown(viewSettings)} />;
}
