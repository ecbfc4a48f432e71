import Link from 'next/link';

export default function NotFound() {
  return (
    <main className="mx-auto max-w-[1240px] px-4 py-10">
      <h1 className="text-2xl font-bold">There is nothing here</h1>
      <p className="mt-2">It may have been discarded, or the address is mistyped.</p>
      <Link className="button mt-4" href="/">
        To the studio
      </Link>
    </main>
  );
}
