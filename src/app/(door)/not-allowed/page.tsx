import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { TurnedAway } from '@/ui/door/TurnedAway';

export const generateMetadata = () => titled(texts('Not for this account'));

export default function Page() {
  return (
    <TurnedAway
      title={texts('This page is not for your account')}
      says={texts('The owner of the studio decides who may see and change what, under Settings.')}
      back
    />
  );
}
