import type { Metadata } from 'next';
import Link from 'next/link';
import '@fontsource-variable/atkinson-hyperlegible-next';
import { Outbox } from '@/ui/outbox/Outbox';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Wendel', template: '%s · Wendel' },
  description: 'Find where a voice changes, and give it the right work.',
};

const PLACES = [
  ['/', 'Studio'],
  ['/exercises', 'Exercises'],
  ['/straws', 'Straws'],
] as const;

export default function RootLayout({ children }: { children: React.ReactNode }) {
  return (
    <html lang="en">
      <body>
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
      </body>
    </html>
  );
}
