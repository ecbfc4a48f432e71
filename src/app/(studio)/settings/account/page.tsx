import { viewAccount } from '@/server/accounts';
import { found } from '@/server/found';
import { AccountRoom } from '@/ui/settings/AccountRoom';

export const metadata = { title: 'Your account' };

export default async function Page() {
  return <AccountRoom {...await found(viewAccount())} />;
}
