import type { Metadata } from 'next';
import '@fontsource-variable/atkinson-hyperlegible-next';
import { texts } from '@/core/words/said';
import { sayHere, spokenHere } from '@/server/language';
import { Alive } from '@/ui/kit/Alive';
import { machineZone } from '@/ui/kit/dates';
import { InLanguage } from '@/ui/language/language';
import './globals.css';

export const generateMetadata = async (): Promise<Metadata> => ({
  title: { default: 'Wendel', template: '%s · Wendel' },
  description: await sayHere(texts('Find where a voice changes, and give it the right work.')),
});

/** The scripts of a page carry the nonce of its answer: it can't be made ahead. */
export const dynamic = 'force-dynamic';

export default async function RootLayout({ children }: { children: React.ReactNode }) {
  const { language, naming, movableDo } = await spokenHere();
  return (
    <html lang={language} data-zone={machineZone()}>
      <body>
        <InLanguage language={language} naming={naming} movableDo={movableDo}>
          {children}
          <Alive />
        </InLanguage>
      </body>
    </html>
  );
}
