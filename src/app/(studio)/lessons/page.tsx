import { shown } from '@/server/found';
import { viewProtocols } from '@/studio/lessons';
import { ProtocolsRoom } from '@/ui/lesson/ProtocolsRoom';

export const metadata = { title: 'Lessons' };

export default async function Page() {
  return <ProtocolsRoom own={await shown(viewProtocols)} />;
}
