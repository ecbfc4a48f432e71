import { Forgot } from '@/ui/door/Forgot';

export const metadata = { title: 'Forgotten password' };

export default function Page() {
  return <Forgot />;
}
