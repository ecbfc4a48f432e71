import type { Metadata } from 'next';
import '@fontsource-variable/atkinson-hyperlegible-next';
import { machineZone } from '@/ui/kit/dates';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Wendel', template: '%s · Wendel' },
  description: 'Find where a voice changes, and give it the right work.',
};

/** The scripts of a page carry the nonce of its answer: it can't be made ahead. */
export const dynamic = 'force-dynamic';

export default function RootLayout({ children }: { children: React.ReactNode }) {
  return (
    <html lang="en" data-zone={machineZone()}>
      <body>{children}</body>
    </html>
  );
}
