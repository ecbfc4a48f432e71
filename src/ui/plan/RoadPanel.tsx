import { CalendarPlus, Printer, Trash2 } from 'lucide-react';
import { FormEvent, useMemo } from 'react';
import { DATE_KINDS, DateKind, RoadDate } from '../../core/plan/dates';
import { roadOf, RoadWeek } from '../../core/plan/road';
import { isWork, PlanRequest } from '../../core/plan/types';
import { dateOf } from '../kit/dates';
import { ForCoaches } from '../kit/may-change';
import { Form } from '../kit/Form';

const KIND_WORDS: Record<DateKind, string> = {
  recital: 'Recital',
  show: 'Show',
  audition: 'Audition',
  exam: 'Exam',
  tour: 'Tour',
  holiday: 'Holiday',
  rehearsals: 'Rehearsals',
};

/** Weeks looked ahead. */
const WEEKS = 8;

/** The weeks ahead: what each is for, what comes in, how much; bent to the dates that are entered here. */
export function RoadPanel({
  singer,
  request,
  from,
  dates,
  onDates,
  name,
}: {
  singer: string;
  request: PlanRequest;
  from: string;
  dates: readonly RoadDate[];
  onDates: (dates: RoadDate[]) => void;
  name: (id: string) => string;
}) {
  const weeks = useMemo(() => roadOf({ plan: { ...request, today: null }, from, weeks: WEEKS, dates }), [request, from, dates]);
  const add = (event: FormEvent<HTMLFormElement>) => {
    const form = new FormData(event.currentTarget);
    const text = (field: string) => String(form.get(field) ?? '').trim();
    const date: RoadDate = {
      day: text('day'),
      kind: text('kind') as DateKind,
      ...(text('until') ? { until: text('until') } : {}),
      ...(text('name') ? { name: text('name') } : {}),
    };
    onDates([...dates, date].sort((a, b) => a.day.localeCompare(b.day)));
    event.currentTarget.reset();
  };
  return (
    <div className="flex flex-col gap-3 text-sm">
      <ForCoaches>
        <Form onSubmit={add} className="grid grid-cols-2 gap-2" aria-label="A date to work towards">
          <label className="flex flex-col gap-1 text-soft">
            What
            <select name="kind" className="field w-full min-w-0">
              {DATE_KINDS.map((k) => (
                <option key={k} value={k}>
                  {KIND_WORDS[k]}
                </option>
              ))}
            </select>
          </label>
          <label className="flex flex-col gap-1 text-soft">
            Called (optional)
            <input name="name" className="field w-full min-w-0" maxLength={120} autoComplete="off" />
          </label>
          <label className="flex flex-col gap-1 text-soft">
            On
            <input name="day" type="date" required className="field w-full min-w-0" />
          </label>
          <label className="flex flex-col gap-1 text-soft">
            Until (optional)
            <input name="until" type="date" className="field w-full min-w-0" />
          </label>
          <button className="button col-span-2 justify-self-start">
            <CalendarPlus aria-hidden size={18} /> Add
          </button>
        </Form>
      </ForCoaches>
      {dates.length > 0 && (
        <ul aria-label="Dates">
          {dates.map((d, i) => (
            <li key={`${d.day}${d.kind}${i}`} className="flex items-center gap-2">
              <span className="flex-1">
                <b>{d.name || KIND_WORDS[d.kind]}</b> {dateOf(d.day)}
                {d.until && d.until !== d.day && ` to ${dateOf(d.until)}`}
              </span>
              <ForCoaches>
                <button
                  className="button-small min-h-9"
                  aria-label={`Take ${d.name || KIND_WORDS[d.kind]} away`}
                  onClick={() => onDates(dates.filter((_, k) => k !== i))}
                >
                  <Trash2 aria-hidden size={16} />
                </button>
              </ForCoaches>
            </li>
          ))}
        </ul>
      )}
      <ol className="grid gap-2 sm:grid-cols-2" aria-label={`The next weeks of ${singer}`} data-testid="road">
        {weeks.map((w) => (
          <Week key={w.number} week={w} name={name} />
        ))}
      </ol>
      <button className="button self-start print:hidden" onClick={() => print()}>
        <Printer aria-hidden size={18} /> Print
      </button>
    </div>
  );
}

function Week({ week: w, name }: { week: RoadWeek; name: (id: string) => string }) {
  const work = w.items.filter(isWork).map((it) => name(it.exerciseId));
  return (
    <li className="rounded-lg border border-line bg-card p-2">
      <p className="flex items-baseline gap-2">
        <b>Week {w.number}</b>
        <span className="flex-1 text-soft">
          {dateOf(w.startsOn)} · {w.phase.name}
        </span>
        <span title="Share of the minutes agreed">{Math.round(w.load * 100)} %</span>
      </p>
      <div className="my-1 h-1.5 rounded bg-line" aria-hidden>
        <div className="h-1.5 rounded bg-accent" style={{ width: `${w.load * 100}%` }} />
      </div>
      <p>{work.join(', ')}</p>
      {w.comesIn.length > 0 && <p className="text-soft">New: {w.comesIn.map(name).join(', ')}</p>}
      {(w.test || w.listening) && (
        <p className="text-soft">{[w.test && 'Test', w.listening && 'Listen again'].filter(Boolean).join(' · ')}</p>
      )}
      {w.because.map((why) => (
        <p key={why} className="text-soft">
          {why}
        </p>
      ))}
      {w.days.map((d) => (
        <p key={d.day + d.because}>
          <b>{dateOf(d.day)}</b> {d.because}
        </p>
      ))}
    </li>
  );
}
