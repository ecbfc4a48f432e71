import { found } from '@/server/found';
import { viewStudio } from '@/server/studio-list';
import { StudioPage } from '@/ui/studio/StudioPage';

export const metadata = { title: 'Studio' };

export default async function Page() {
  return <StudioPage {...await found(viewStudio())} />;
}
