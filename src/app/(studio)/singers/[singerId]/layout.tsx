import { found } from '@/server/found';
import { singerName } from '@/server/singers';
import { SingerFrame } from '@/ui/studio/SingerFrame';

export default async function Layout({ children, params }: { children: React.ReactNode; params: Promise<{ singerId: string }> }) {
  const { singerId } = await params;
  return <SingerFrame singer={await found(singerName(singerId))}>{children}</SingerFrame>;
}
