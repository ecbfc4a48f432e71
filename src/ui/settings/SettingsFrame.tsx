'use client';
import { Link } from '../kit/Link';
import { usePathname } from 'next/navigation';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

const PAGES = texts([
  ['/settings', 'Studio', false],
  ['/settings/coaches', 'Coaches', true],
  ['/settings/log', 'Who did what', true],
  ['/settings/account', 'Your account', false],
]);

/** The pages of the settings; some are for owners. */
export function SettingsFrame({ role, children }: { role: 'owner' | 'coach' | 'reader'; children: React.ReactNode }) {
  const { t } = useLanguage();
  const path = usePathname();
  return (
    <main className="mx-auto flex max-w-[1000px] flex-col gap-4 px-4 py-4">
      <nav aria-label={t('Settings')} className="flex flex-wrap gap-1">
        {PAGES.filter(([, , owners]) => !owners || role === 'owner').map(([href, name]) => (
          <Link
            key={href}
            href={href}
            aria-current={path === href ? 'page' : undefined}
            className={`min-h-11 content-center rounded-lg px-4 font-semibold ${path === href ? 'bg-accent text-accent-ink' : 'hover:bg-card'}`}
          >
            {t(name)}
          </Link>
        ))}
      </nav>
      {children}
    </main>
  );
}
