import { ownPath } from '@/server/own-path';
import { SignIn } from '@/ui/door/SignIn';

export const metadata = { title: 'Sign in' };

/** `to`: the page that was asked for. */
export default async function Page({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  const { to = '/' } = await searchParams;
  return <SignIn to={ownPath(to)} />;
}
