import { found } from '@/server/found';
import { viewProtocols } from '@/server/lessons';
import { ProtocolsRoom } from '@/ui/lesson/ProtocolsRoom';

export const metadata = { title: 'Lessons' };

export default async function Page() {
  return <ProtocolsRoom own={await found(viewProtocols())} />;
}
