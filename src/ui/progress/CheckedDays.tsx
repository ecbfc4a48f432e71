import { texts } from '../../core/words/said';
import { type CheckedDay, recoveredAfter } from '../../core/practice/readiness';
import { READY_WORDS } from '../practice/words';
import { useLanguage } from '../language/language';

const SHOWN = 28;
const GONE = texts('the soft note didn’t come');
const TOO_FEW = texts('too few days to compare with');
/** Heights of a day's bar, by semitones taken off: the better the day, the taller. */
const HEIGHTS = ['h-10', 'h-7', 'h-4', 'h-2'];

/** The one-minute checks of the last weeks: how ready the voice was on each day, and how long it took to be as usual again. */
export function CheckedDays({ days, name }: { days: readonly CheckedDay[]; name: string }) {
  const { dateOf, t } = useLanguage();
  const shown = days.slice(-SHOWN);
  const worse = shown.filter((d) => d.lowerSt > 0);
  const last = worse[worse.length - 1];
  const back = last && recoveredAfter(days, last.day);
  const words = (d: CheckedDay) => t(d.gone ? GONE : d.days < 2 ? TOO_FEW : READY_WORDS[d.lowerSt]);
  return (
    <section aria-label={t('Today’s voice over time')} className="card">
      <h2 className="mb-1 text-lg font-bold">{t('Today’s voice')}</h2>
      {shown.length === 0 ? (
        <p className="text-soft">
          {t('No check yet: the practice page offers one before singing, a minute long, to be held against good days.')}
        </p>
      ) : (
        <p className="mb-2">
          {t('{n, plural, one {# check} other {# checks}} by {name}, {worse, plural, =0 {none} other {#}} under good days.', {
            n: shown.length,
            name: { own: name },
            worse: worse.length,
          })}
          {last && t(' Last on {day}: ', { day: dateOf(last.day) })}
          {last &&
            (back === null
              ? t('not as usual since.')
              : t('as usual again after {days, plural, one {# day} other {# days}}.', { days: back }))}
        </p>
      )}
      <ul className="flex items-end gap-1" data-testid="checked-days">
        {shown.map((d) => (
          <li
            key={d.day}
            title={`${dateOf(d.day)}: ${[words(d), ...d.because.map((why) => t(why))].join('. ')}`}
            className="flex w-4 flex-col justify-end"
          >
            <span
              aria-hidden
              className={`block rounded-sm ${HEIGHTS[d.lowerSt]} ${d.days < 2 ? 'border border-line' : d.lowerSt > 0 ? 'bg-band' : 'bg-accent'}`}
            />
            <span className="sr-only">
              {dateOf(d.day)}: {words(d)}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
