'use client';
import { Link } from '../kit/Link';
import { usePathname } from 'next/navigation';
import { VoiceTypeId, voiceType } from '../../core/plan/voice-types';
import { useMayChange } from '../kit/may-change';
import { Notice } from '../kit/Notice';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

const TABS = texts([
  ['listen', 'Listen'],
  ['map', 'Map'],
  ['plan', 'Plan'],
  ['progress', 'Progress'],
  ['songs', 'Songs'],
]);
/** Views that belong to a tab: a take is opened from the map, a lesson is listening. */
const WITHIN: Record<string, string> = { map: '/takes/', listen: '/lessons/' };

/** The one frame of a singer: name and tabs; each view puts the ladder at its left edge. */
export function SingerFrame({
  singer,
  awaitsConsent,
  children,
}: {
  singer: { id: string; name: string; part: string; voiceType: VoiceTypeId };
  /** A minor who may not be recorded yet. */
  awaitsConsent: boolean;
  children: React.ReactNode;
}) {
  const { t } = useLanguage();
  const path = usePathname();
  const mayChange = useMayChange();
  return (
    <main className="mx-auto max-w-[1240px] px-4 py-3">
      <div className="mb-3 flex flex-wrap items-end gap-x-6 gap-y-1">
        <h1 className="text-2xl font-bold">{singer.name}</h1>
        <p className="pb-0.5 text-soft">{[t(voiceType(singer.voiceType).name), singer.part].filter(Boolean).join(' · ')}</p>
        <nav aria-label={t('{name}: views', { name: singer.name })} className="no-print ml-auto flex flex-wrap gap-1">
          {TABS.filter(([tab]) => mayChange || tab !== 'listen').map(([tab, name]) => {
            const href = `/singers/${singer.id}/${tab}`;
            const here = path === href || path.includes(WITHIN[tab] ?? href);
            return (
              <Link
                key={tab}
                href={href}
                aria-current={here ? 'page' : undefined}
                className={`min-h-11 content-center rounded-lg px-4 font-semibold max-sm:px-3 ${here ? 'bg-accent text-accent-ink' : 'hover:bg-card'}`}
              >
                {t(name)}
              </Link>
            );
          })}
        </nav>
      </div>
      {mayChange && awaitsConsent && (
        <div className="mb-3">
          <Notice>
            {t(
              'No guardian’s consent is noted for {name}, who is a minor: nothing is recorded until it is. The pencil beside the name in the studio opens the singer’s record.',
              { name: singer.name },
            )}
          </Notice>
        </div>
      )}
      {children}
    </main>
  );
}
