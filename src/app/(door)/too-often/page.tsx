import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { TurnedAway } from '@/ui/door/TurnedAway';

export const generateMetadata = () => titled(texts('Too often'));

export default function Page() {
  return (
    <TurnedAway
      title={texts('That was tried too often')}
      says={texts(
        'From your network many addresses were tried that are none. Wait a quarter of an hour and open your link again; nothing is lost.',
      )}
    />
  );
}
