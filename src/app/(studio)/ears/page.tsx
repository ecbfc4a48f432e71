import { shown } from '@/server/found';
import { viewEars } from '@/studio/ears';
import { EarRoom } from '@/ui/ears/EarRoom';

export const metadata = { title: 'Ears' };

export default async function Page() {
  return <EarRoom ears={await shown(viewEars)} />;
}
