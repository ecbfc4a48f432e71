import { texts } from '@/core/words/said';
import { titled } from '@/server/language';
import { ownPath } from '@/server/own-path';
import { SignIn } from '@/ui/door/SignIn';

export const generateMetadata = () => titled(texts('Sign in'));

/** `to`: the page that was asked for. */
export default async function Page({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  const { to = '/' } = await searchParams;
  return <SignIn to={ownPath(to)} />;
}
