import { viewStudio } from '@/server/singers';
import { StudioPage } from '@/ui/studio/StudioPage';

export const metadata = { title: 'Studio' };

export default async function Page() {
  return <StudioPage {...await viewStudio()} />;
}
