'use client';
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/react';
import { UserRound } from 'lucide-react';
import { Link } from '../kit/Link';
import { takesLane } from '../../sync/takes';
import { wordsLane } from '../../sync/words';
import { Help } from '../help/Help';
import { enter } from '../kit/enter';
import { ask } from '../../sync/ask';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

const LONGEST_FLUSH_MS = 3000;
const pause = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms));

const PLACES = texts([
  ['/', 'Studio'],
  ['/exercises', 'Exercises'],
  ['/songs', 'Songs'],
  ['/straws', 'Straws'],
  ['/ears', 'Ears'],
  ['/post', 'Post'],
]);

const PLACE = 'min-h-9 content-center font-semibold hover:underline';
const ENTRY = 'block w-full rounded-lg px-3 py-2 text-left font-semibold data-focus:bg-paper';

/** The main menu, and who is signed in. */
export function MainMenu({ name, role }: { name: string; role: 'owner' | 'coach' | 'reader' }) {
  const { t } = useLanguage();
  const signOut = async () => {
    // What is still on its way goes first, if it can; what can't waits here, for this account only.
    await Promise.race([Promise.all([wordsLane.flush(), takesLane.flush()]), pause(LONGEST_FLUSH_MS)]).catch(() => {});
    // Signed out already is signed out.
    await ask('POST /api/door/sign-out').catch(() => {});
    enter('/sign-in');
  };
  return (
    <header className="no-print border-b border-line bg-card">
      <nav aria-label={t('Main')} className="mx-auto flex max-w-[1240px] flex-wrap items-center gap-x-6 px-4 py-2 max-lg:gap-x-4">
        <Link href="/" className="text-lg font-bold text-accent">
          Wendel
        </Link>
        {PLACES.filter(([href]) => role !== 'reader' || href !== '/post').map(([href, words]) => (
          <Link key={href} href={href} className={PLACE}>
            {t(words)}
          </Link>
        ))}
        {role === 'reader' && <span className="text-soft">{t('You may look; changes are for coaches.')}</span>}
        <span className="ml-auto" />
        <Help className={PLACE} />
        <Link href="/settings" className={PLACE}>
          {t('Settings')}
        </Link>
        <Menu>
          <MenuButton className={`flex items-center gap-2 ${PLACE}`}>
            <UserRound aria-hidden size={18} />
            {name}
          </MenuButton>
          <MenuItems anchor="bottom end" className="card z-10 min-w-48 p-1">
            <MenuItem>
              <Link href="/settings/account" className={ENTRY}>
                {t('Your account')}
              </Link>
            </MenuItem>
            <MenuItem>
              <button className={ENTRY} onClick={() => void signOut()}>
                {t('Sign out')}
              </button>
            </MenuItem>
          </MenuItems>
        </Menu>
      </nav>
    </header>
  );
}
