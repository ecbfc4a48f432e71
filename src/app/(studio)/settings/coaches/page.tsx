import { viewMembers } from '@/server/accounts';
import { found } from '@/server/found';
import { CoachesRoom } from '@/ui/settings/CoachesRoom';

export const metadata = { title: 'Coaches' };

export default async function Page() {
  return <CoachesRoom {...await found(viewMembers())} />;
}
