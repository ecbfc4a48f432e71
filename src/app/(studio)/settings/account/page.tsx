import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { viewAccount } from '@/server/accounts';
import { found } from '@/server/found';
import { AccountRoom } from '@/ui/settings/AccountRoom';

export const generateMetadata = () => titled(texts('Your account'));

export default async function Page() {
  return <AccountRoom {...await found(viewAccount())} />;
}
