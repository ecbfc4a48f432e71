import { found } from '@/server/found';
import { viewFrame } from '@/server/singers';
import { SingerFrame } from '@/ui/studio/SingerFrame';

export default async function Layout({ children, params }: { children: React.ReactNode; params: Promise<{ singerId: string }> }) {
  const { singerId } = await params;
  return <SingerFrame {...await found(viewFrame(singerId))}>{children}</SingerFrame>;
}
