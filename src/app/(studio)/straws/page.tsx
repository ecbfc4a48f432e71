import { StrawBench } from '@/ui/straw/StrawBench';

export const metadata = { title: 'Straws' };

export default function Page() {
  return <StrawBench />;
}
