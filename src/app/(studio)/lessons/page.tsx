import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { shown } from '@/server/found';
import { viewProtocols } from '@/studio/lessons';
import { ProtocolsRoom } from '@/ui/lesson/ProtocolsRoom';

export const generateMetadata = () => titled(texts('Lessons'));

export default async function Page() {
  return <ProtocolsRoom own={await shown(viewProtocols)} />;
}
