import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { viewSignUp } from '@/server/accounts';
import { SignUp } from '@/ui/door/SignUp';

export const generateMetadata = () => titled(texts('New account'));

export default async function Page() {
  return <SignUp {...await viewSignUp()} />;
}
