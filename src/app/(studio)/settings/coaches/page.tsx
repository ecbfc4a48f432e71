import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { viewMembers } from '@/server/accounts';
import { found } from '@/server/found';
import { CoachesRoom } from '@/ui/settings/CoachesRoom';

export const generateMetadata = () => titled(texts('Coaches'));

export default async function Page() {
  return <CoachesRoom {...await found(viewMembers())} />;
}
