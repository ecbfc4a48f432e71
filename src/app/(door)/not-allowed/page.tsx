import Link from 'next/link';

export const metadata = { title: 'Not for this account' };

export default function Page() {
  return (
    <>
      <h1 className="text-2xl font-bold">This page is not for your account</h1>
      <p>The owner of the studio decides who may see and change what, under Settings.</p>
      <Link className="button self-start" href="/">
        To the studio
      </Link>
    </>
  );
}
