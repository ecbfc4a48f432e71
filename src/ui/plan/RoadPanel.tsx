import { Calendar, CalendarPlus, Printer, RotateCcw, Trash2 } from 'lucide-react';
import { FormEvent, useMemo } from 'react';
import { DATE_KINDS, DateKind, dateLater, RoadDate } from '../../core/plan/dates';
import { roadOf, shifted } from '../../core/plan/road';
import { DAYS_A_WEEK, type PlanRequest } from '../../core/plan/types';
import { ForCoaches } from '../kit/may-change';
import { Form } from '../kit/Form';
import { downloadRoad } from '../sheet/calendar';
import { dateName, KIND_WORDS } from './date-words';
import { RoadWeeks } from './RoadWeeks';
import { useLanguage } from '../language/language';

const inOrder = (dates: RoadDate[]): RoadDate[] => dates.sort((a, b) => a.day.localeCompare(b.day));

/** Weeks looked ahead. */
const WEEKS = 8;

/** The weeks ahead: what each is for, what comes in, how much; bent to the dates that are entered here. */
export function RoadPanel({
  singer,
  request,
  from,
  dates,
  onDates,
  phaseWeeks,
  onPhaseWeeks,
  songs,
  name,
}: {
  singer: string;
  request: PlanRequest;
  from: string;
  dates: readonly RoadDate[];
  onDates: (dates: RoadDate[]) => void;
  /** How long phases last where the coach has said so. */
  phaseWeeks: Readonly<Record<string, number>>;
  onPhaseWeeks: (phaseWeeks: Record<string, number>) => void;
  /** Titles of the singer's songs whose key is chosen. */
  songs: readonly string[];
  name: (id: string) => string;
}) {
  const speaker = useLanguage();
  const { dateOf, t } = speaker;
  const weeks = useMemo(
    () => roadOf({ plan: { ...request, today: null }, from, weeks: WEEKS, dates, phaseWeeks, songs }),
    [request, from, dates, phaseWeeks, songs],
  );
  const shift = (begins: number, to: number) => {
    const next = shifted(weeks, begins, to, phaseWeeks);
    if (next) onPhaseWeeks(next);
  };
  const add = (event: FormEvent<HTMLFormElement>) => {
    const form = new FormData(event.currentTarget);
    const text = (field: string) => String(form.get(field) ?? '').trim();
    const date: RoadDate = {
      day: text('day'),
      kind: text('kind') as DateKind,
      ...(text('until') ? { until: text('until') } : {}),
      ...(text('name') ? { name: text('name') } : {}),
      ...(form.has('song') ? { songs: form.getAll('song').map(String) } : {}),
    };
    onDates(inOrder([...dates, date]));
    event.currentTarget.reset();
  };
  return (
    <div className="flex flex-col gap-3 text-sm print:gap-1 print:text-xs">
      <ForCoaches>
        <Form onSubmit={add} className="grid grid-cols-2 gap-2 print:hidden" aria-label={t('A date to work towards')}>
          <label className="flex flex-col gap-1 text-soft">
            {t('What')}
            <select name="kind" className="field w-full min-w-0">
              {DATE_KINDS.map((k) => (
                <option key={k} value={k}>
                  {t(KIND_WORDS[k])}
                </option>
              ))}
            </select>
          </label>
          <label className="flex flex-col gap-1 text-soft">
            {t('Called (optional)')}
            <input name="name" className="field w-full min-w-0" maxLength={120} autoComplete="off" />
          </label>
          <label className="flex flex-col gap-1 text-soft">
            {t('On')}
            <input name="day" type="date" required className="field w-full min-w-0" />
          </label>
          <label className="flex flex-col gap-1 text-soft">
            {t('Until (optional)')}
            <input name="until" type="date" className="field w-full min-w-0" />
          </label>
          {songs.length > 0 && (
            <fieldset className="col-span-2">
              <legend className="text-soft">{t('Songs sung then (optional)')}</legend>
              <div className="flex max-h-28 flex-wrap gap-x-3 overflow-y-auto">
                {songs.map((title) => (
                  <label key={title} className="flex min-h-8 items-center gap-1">
                    <input type="checkbox" name="song" value={title} /> {title}
                  </label>
                ))}
              </div>
            </fieldset>
          )}
          <button className="button col-span-2 justify-self-start">
            <CalendarPlus aria-hidden size={18} /> {t('Add')}
          </button>
        </Form>
      </ForCoaches>
      {dates.length > 0 && (
        <ul aria-label={t('Dates')}>
          {dates.map((d, i) => (
            <li key={`${d.day}${d.kind}${i}`} className="flex items-center gap-2">
              <span className="flex-1">
                <b>{d.name || t(KIND_WORDS[d.kind])}</b> {dateOf(d.day)}
                {d.until && d.until !== d.day && t(' to {until}', { until: dateOf(d.until) })}
                {d.songs && <span className="text-soft">: {d.songs.join(', ')}</span>}
              </span>
              <ForCoaches>
                <button
                  className="button-small min-h-9 print:hidden"
                  aria-label={t('Take {name} away', { name: dateName(d) })}
                  onClick={() => onDates(dates.filter((_, k) => k !== i))}
                >
                  <Trash2 aria-hidden size={16} />
                </button>
              </ForCoaches>
            </li>
          ))}
        </ul>
      )}
      <h2 className="hidden text-lg font-bold print:block">{t('{singer}: the next {n} weeks', { singer, n: weeks.length })}</h2>
      <RoadWeeks
        weeks={weeks}
        label={t('The next weeks of {singer}', { singer })}
        name={name}
        dates={dates}
        onShift={shift}
        onDate={(index, by) => onDates(inOrder(dates.map((d, i) => (i === index ? dateLater(d, by * DAYS_A_WEEK) : d))))}
      />
      <div className="flex flex-wrap gap-2 print:hidden">
        <button className="button" onClick={() => print()}>
          <Printer aria-hidden size={18} /> {t('Print')}
        </button>
        <button className="button" onClick={() => downloadRoad(weeks, singer, name, speaker)}>
          <Calendar aria-hidden size={18} /> {t('Into a calendar')}
        </button>
        {Object.keys(phaseWeeks).length > 0 && (
          <ForCoaches>
            <button className="button" onClick={() => onPhaseWeeks({})}>
              <RotateCcw aria-hidden size={18} /> {t('Phases as long as usual')}
            </button>
          </ForCoaches>
        )}
      </div>
    </div>
  );
}
