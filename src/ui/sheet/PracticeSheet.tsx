'use client';
import { QRCodeSVG } from 'qrcode.react';
import { Link } from '../kit/Link';
import { useMemo, useState } from 'react';
import { useFollowAlong } from '../../audio/follow-along';
import { patternSpan } from '../../core/exercise/pattern';
import { SAFETY } from '../../core/plan/safety';
import { setsOf } from '../../core/plan/sessions';
import { Notice } from '../kit/Notice';
import { weekFrom } from '../plan/days';
import { SheetItem } from './SheetItem';
import { SheetTools } from './SheetTools';
import type { SheetView } from './view';
import { useLanguage } from '../language/language';

import { texts } from '../../core/words/said';

/** So many exercises fill a printed page; more are printed smaller. */
const FIT_ITEMS = 6.2;

const STOP_SIGNS = SAFETY.filter((r) => r.when.sign && r.when.sign !== 'effort' && r.when.sign !== 'dizzy');

/** A practice sheet for the week or one of its days: notes, keys, dose and reason; it plays, and prints on one page. */
export function PracticeSheet({ view }: { view: SheetView }) {
  const { dateOf, language, rich, t } = useLanguage();
  const { assignment, singer, map } = view;
  const along = useFollowAlong();
  const [day, setDay] = useState<number | null>(null);
  const week = weekFrom(assignment.startsOn, language);
  const items = view.items.filter(({ item }) => day === null || item.days.includes(day));
  const sets = day === null ? null : setsOf(items.map(({ item }) => item)).filter((s) => s.day === day);
  // Only who has just made the singer's link has it: the studio keeps no more than its hash.
  const [address, setAddress] = useState<string | null>(null);
  const range = useMemo(() => {
    const notes = view.items.flatMap(({ item, exercise }) => {
      const span = patternSpan(exercise);
      return item.keys.flatMap((k) => [k + span.bottom, k + span.top]);
    });
    return {
      low: Math.min(...notes, map.extreme ? Math.floor(map.extreme.low.midi) : 127),
      high: Math.max(...notes, map.extreme ? Math.ceil(map.extreme.high.midi) : 0),
    };
  }, [view.items, map]);

  return (
    <main
      className="mx-auto max-w-[1000px] px-4 py-4 print:max-w-none print:p-0 print:[zoom:var(--fit)]"
      style={{ '--fit': Math.min(1, FIT_ITEMS / Math.max(1, items.length)) } as React.CSSProperties}
    >
      <div className="mb-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <h1 className="text-2xl font-bold print:text-xl">{t('{name}: practice', { name: singer.name })}</h1>
        <p className="pb-0.5 text-soft">{day === null ? t('week from {date}', { date: dateOf(assignment.startsOn) }) : week[day].long}</p>
        {address && (
          <QRCodeSVG
            value={address}
            size={64}
            className="ml-auto hidden print:block"
            title={t('Opens {name}’s practice page', { name: singer.name })}
            marginSize={1}
          />
        )}
        <div className="no-print ml-auto flex flex-wrap gap-2">
          <Link className="button" href={`/singers/${singer.id}/plan`}>
            {t('Plan')}
          </Link>
          <SheetTools view={view} items={items} onLink={setAddress} />
        </div>
      </div>
      <div role="group" aria-label={t('What is shown')} className="no-print mb-3 flex flex-wrap gap-1">
        {[null, ...week.keys()].map((d) => (
          <button
            key={d ?? 'week'}
            aria-pressed={day === d}
            title={d === null ? t('Everything of the week') : week[d].long}
            className={`min-h-11 rounded-lg border px-3 text-sm font-semibold ${day === d ? 'border-accent bg-accent text-accent-ink' : 'border-line bg-card'}`}
            onClick={() => setDay(d)}
          >
            {d === null ? t('Whole week') : week[d].short}
          </button>
        ))}
      </div>
      {assignment.note && <p className="mb-2 text-lg print:text-sm">{assignment.note}</p>}
      {sets && (
        <p className="mb-2" data-testid="sets">
          {sets.length === 0
            ? t('A day of rest.')
            : t('{sets, plural, one {# set} other {# sets}} of about {minutes} minutes, with rest between; the last ones shorter.', {
                sets: sets.length,
                minutes: Math.ceil(sets[0].minutes),
              })}
        </p>
      )}
      {along.problem && <Notice>{t(along.problem)}</Notice>}
      <ol className="flex flex-col gap-3 print:gap-0">
        {items.map(({ item, exercise }, i) => (
          <SheetItem
            key={exercise.id}
            number={i + 1}
            item={item}
            exercise={exercise}
            startsOn={assignment.startsOn}
            voice={singer.voiceType}
            map={map}
            range={range}
            along={along}
          />
        ))}
      </ol>
      <p className="mt-3 border-t border-line pt-2 text-sm print:mt-1 print:text-[11px]">
        {rich(
          '<b>Stop</b> at any of these: {signs}; and rest as long as you sang. A crack is only information. Still hoarse after a good rest? Leave it, tell your coach, and see a doctor if it does not clear.',
          { signs: { all: STOP_SIGNS.map((r) => SIGN_WORDS[r.when.sign!]), as: 'comma' } },
          { b: (inside) => <b>{inside}</b> },
        )}
      </p>
    </main>
  );
}

const SIGN_WORDS: Record<string, string> = texts({
  scratch: 'scratch',
  tickle: 'tickle',
  tight: 'tightness',
  rasp: 'rasp you didn’t mean',
  hoarse: 'hoarseness',
  'soft-gone': 'loss of your high soft notes',
  pain: 'pain',
});
