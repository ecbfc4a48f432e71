import Link from 'next/link';
import { Outbox } from '@/ui/outbox/Outbox';

const PLACES = [
  ['/', 'Studio'],
  ['/exercises', 'Exercises'],
  ['/straws', 'Straws'],
  ['/post', 'Post'],
] as const;

/** The coach's side: the main menu, and what waits to be sent. */
export default function StudioLayout({ children }: { children: React.ReactNode }) {
  return (
    <>
      <header className="no-print border-b border-line bg-card">
        <nav aria-label="Main" className="mx-auto flex max-w-[1240px] items-center gap-6 px-4 py-2">
          <Link href="/" className="text-lg font-bold text-accent">
            Wendel
          </Link>
          {PLACES.map(([href, name]) => (
            <Link key={href} href={href} className="min-h-9 content-center font-semibold hover:underline">
              {name}
            </Link>
          ))}
          <Link href="/settings" className="ml-auto min-h-9 content-center font-semibold hover:underline">
            Settings
          </Link>
        </nav>
      </header>
      <Outbox />
      {children}
    </>
  );
}
