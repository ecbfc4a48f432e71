import { found } from '@/server/found';
import { viewRepertoire } from '@/server/songs';
import { Repertoire } from '@/ui/songs/Repertoire';

export const metadata = { title: 'Songs' };

export default async function Page({ params }: { params: Promise<{ singerId: string }> }) {
  return <Repertoire view={await found(viewRepertoire((await params).singerId))} />;
}
