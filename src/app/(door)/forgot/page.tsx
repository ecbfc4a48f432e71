import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { Forgot } from '@/ui/door/Forgot';

export const generateMetadata = () => titled(texts('Forgotten password'));

export default function Page() {
  return <Forgot />;
}
