import { shown } from '@/server/found';
import { viewRepertoire } from '@/studio/songs';
import { Repertoire } from '@/ui/songs/Repertoire';

export const metadata = { title: 'Songs' };

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  return <Repertoire view={await shown(viewRepertoire, (await params).singerId)} />;
}
