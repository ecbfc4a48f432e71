import { named, shown } from '@/server/found';
import { viewFrame } from '@/studio/singers';
import { SingerFrame } from '@/ui/studio/SingerFrame';

export default async function Layout({ children, params }: { children: React.ReactNode; params: Promise<{ singerId: string }> }) {
  const { singerId } = await named(params);
  return <SingerFrame {...await shown(viewFrame, singerId)}>{children}</SingerFrame>;
}
