import { viewSignUp } from '@/server/accounts';
import { SignUp } from '@/ui/door/SignUp';

export const metadata = { title: 'New account' };

export default async function Page() {
  return <SignUp {...await viewSignUp()} />;
}
