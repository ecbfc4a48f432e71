import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { named, shown } from '@/server/found';
import { viewRepertoire } from '@/studio/songs';
import { Repertoire } from '@/ui/songs/Repertoire';

export const generateMetadata = () => titled(texts('Songs'));

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  return <Repertoire view={await shown(viewRepertoire, (await named(params)).singerId)} />;
}
