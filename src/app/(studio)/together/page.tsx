import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { shown } from '@/server/found';
import { viewTogether } from '@/studio/together';
import { TogetherRoom } from '@/ui/together/TogetherRoom';

export const generateMetadata = () => titled(texts('Several together'));

/** `with`: ids of singers, one after another with commas. */
export default async function Page({ searchParams }: { searchParams: Promise<{ with?: string | string[] }> }) {
  const asked = [(await searchParams).with ?? []].flat().flatMap((ids) => ids.split(','));
  return <TogetherRoom view={await shown(viewTogether, asked)} />;
}
