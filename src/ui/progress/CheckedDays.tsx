import { type CheckedDay, recoveredAfter } from '../../core/practice/readiness';
import { dateOf } from '../kit/dates';
import { READY_WORDS } from '../practice/words';

const SHOWN = 28;
/** Heights of a day's bar, by semitones taken off: the better the day, the taller. */
const HEIGHTS = ['h-10', 'h-7', 'h-4', 'h-2'];

/** The one-minute checks of the last weeks: how ready the voice was on each day, and how long it took to be as usual again. */
export function CheckedDays({ days, name }: { days: readonly CheckedDay[]; name: string }) {
  const shown = days.slice(-SHOWN);
  const worse = shown.filter((d) => d.lowerSt > 0);
  const last = worse[worse.length - 1];
  const back = last && recoveredAfter(days, last.day);
  const words = (d: CheckedDay) =>
    d.gone ? 'the soft note didn’t come' : d.days < 2 ? 'too few days to compare with' : READY_WORDS[d.lowerSt];
  return (
    <section aria-label="Today’s voice over time" className="card">
      <h2 className="mb-1 text-lg font-bold">Today’s voice</h2>
      {shown.length === 0 ? (
        <p className="text-soft">No check yet: the practice page offers one before singing, a minute long, to be held against good days.</p>
      ) : (
        <p className="mb-2">
          {shown.length} {shown.length === 1 ? 'check' : 'checks'} by {name}, {worse.length === 0 ? 'none' : worse.length} under good days.
          {last && ` Last on ${dateOf(last.day)}: `}
          {last && (back === null ? 'not as usual since.' : `as usual again after ${back} ${back === 1 ? 'day' : 'days'}.`)}
        </p>
      )}
      <ul className="flex items-end gap-1" data-testid="checked-days">
        {shown.map((d) => (
          <li key={d.day} title={`${dateOf(d.day)}: ${[words(d), ...d.because].join('. ')}`} className="flex w-4 flex-col justify-end">
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
