import { shown } from '@/server/found';
import { viewStudio } from '@/studio/studio-list';
import { StudioPage } from '@/ui/studio/StudioPage';

export const metadata = { title: 'Studio' };

export default async function Page() {
  return <StudioPage {...await shown(viewStudio)} />;
}
