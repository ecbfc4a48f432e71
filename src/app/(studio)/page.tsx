import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { shown } from '@/server/found';
import { viewStudio } from '@/studio/studio-list';
import { StudioPage } from '@/ui/studio/StudioPage';

export const generateMetadata = () => titled(texts('Studio'));

export default async function Page() {
  return <StudioPage {...await shown(viewStudio)} />;
}
