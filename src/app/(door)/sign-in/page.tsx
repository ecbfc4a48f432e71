import { SignIn } from '@/ui/door/SignIn';

export const metadata = { title: 'Sign in' };

/** `to`: the page that was asked for. */
export default async function Page({ searchParams }: { searchParams: Promise<{ to?: string }> }) {
  const { to = '/' } = await searchParams;
  // A page of ours only: a link must not lead through the door to another site.
  return <SignIn to={/^\/(?![/\\])/.test(to) ? to : '/'} />;
}
