'use client';
import { exerciseName } from '../../core/exercise/of-song';
import { subDays } from 'date-fns';
import dynamic from 'next/dynamic';
import type { Exercise } from '../../core/exercise/types';
import { propose } from '../../core/plan/progress';
import type { PlanItem } from '../../core/plan/types';
import { weekMinutes } from '../../core/plan/dose';
import { beltMinutes } from '../../core/practice/belt';
import type { Chapter } from '../../core/practice/chapters';
import { elsewhereInWords } from '../../core/practice/elsewhere';
import { DayLog, kept, practisedOf } from '../../core/practice/log';
import { checkedDays } from '../../core/practice/readiness';
import type { DayMeasures } from '../../core/practice/measures';
import type { Trial } from '../../core/practice/trial';
import { Entry, isCheck, isDone, isTrial } from '../../core/practice/types';
import { dayKey } from '../plan/days';
import { KeptNote } from '../outbox/KeptNote';
import { checkInWords, feltInWords, heardInWords, toldInWords, trialInWords } from '../practice/words';
import { useClip } from '../../audio/clip';
import { Spoken } from './Spoken';
import { CheckedDays } from './CheckedDays';
import { Granted } from './Granted';
import { Chapters } from './Chapters';
import { News } from './News';
import { TrialCard } from './TrialCard';
import { Report } from './Report';
import { STEP_WORDS } from './words';
import { addressOf } from '../../sync/ask';
import { useLanguage } from '../language/language';

interface Props {
  view: {
    singer: { id: string; name: string };
    days: DayLog[];
    /** The last two months'. */
    entries: Entry[];
    /** Of which of them what was spoken is here to be heard. */
    spoken: string[];
    assigned: { id: string; startsOn: string; items: (PlanItem & { exercise: Exercise })[] }[];
    measured: DayMeasures[];
    chapters: Chapter[];
    /** A siren of a day, by the day. */
    sirens: Record<string, string>;
    /** Minutes a week that may be belted; null: no limit. */
    beltLimit: number | null;
    trial: (Trial & { underWay: boolean }) | null;
    /** The server's clock, milliseconds. */
    now: number;
  };
}

const SHOWN_DAYS = 28;
const LISTED = 60;

// Charts come after the words: what draws them is a third of the page.
const MinutesChart = dynamic(() => import('./MinutesChart').then((m) => m.MinutesChart), { ssr: false });
const Measures = dynamic(() => import('./Measures').then((m) => m.Measures), { ssr: false });

/** What was practised at home: minutes and voice load by day, what was told, and what each exercise is ready for. */
export function ProgressRoom({
  view: { singer, days, entries, spoken, assigned, measured, chapters, sirens, beltLimit, trial, now },
}: Props) {
  const { dateOf, rich, t } = useLanguage();
  const clip = useClip();
  const known = new Map(days.map((d) => [d.day, d]));
  // Every day of the last weeks, also those with nothing on them.
  const recent = Array.from({ length: SHOWN_DAYS }, (_, i) => dayKey(subDays(now, SHOWN_DAYS - 1 - i))).map(
    (day) => known.get(day) ?? { day, minutes: 0, items: 0, elsewhere: 0, load: { voicedS: 0, cycles: 0 }, trouble: false },
  );
  const items = assigned[0]?.items ?? [];
  const thisWeek =
    assigned[0] &&
    kept(
      items,
      assigned[0].startsOn,
      days.filter((d) => d.items > 0).map((d) => d.day),
      dayKey(new Date(now)),
    );
  const belted = beltMinutes(entries, dayKey(new Date(now)));
  const planned = items.reduce((s, it) => s + weekMinutes(it), 0);
  const week = recent.slice(-7);
  const sum = (of: (d: (typeof days)[number]) => number) => week.reduce((s, d) => s + of(d), 0);
  return (
    <div className="flex flex-col gap-4">
      <News />
      {(days.length > 0 || measured.length > 0) && (
        <Report name={singer.name} days={days} measured={measured} chapters={chapters} now={now} />
      )}
      <Chapters chapters={chapters} />
      <Measures measured={measured} sirens={sirens} chapters={chapters} />
      {trial && <TrialCard trial={trial} name={singer.name} />}
      <CheckedDays days={checkedDays(entries)} name={singer.name} />
      {days.length === 0 ? (
        <p className="card max-w-2xl text-lg">
          {t('{name} hasn’t practised with Wendel yet. Assign a week, then send the practice page from its sheet.', { name: singer.name })}
        </p>
      ) : (
        <>
          <section aria-label={t('Practice by day')} className="card">
            <p className="mb-2 text-lg">
              {rich(
                'In the last seven days: <b>{minutes, plural, one {# minute} other {# minutes}}</b> on {days, plural, one {# day} other {# days}}',
                { minutes: Math.ceil(sum((d) => d.minutes)), days: week.filter((d) => d.items > 0).length },
                { b: (inside) => <b>{inside}</b> },
              )}
              {planned > 0 && t(' (the plan has {planned} minutes a week)', { planned: Math.round(planned) })}
              {sum((d) => d.load.voicedS) > 0 &&
                t(', of which {voiced} voiced ({cycles} thousand cycles of the folds)', {
                  voiced: Math.ceil(sum((d) => d.load.voicedS) / 60),
                  cycles: Math.round(sum((d) => d.load.cycles) / 1000),
                })}
              .
              {(belted > 0 || beltLimit !== null) &&
                t(
                  beltLimit === null
                    ? ' Belted: {belted, number, ::.0} minutes.'
                    : ' Belted: {belted, number, ::.0} minutes of at most {limit} a week.',
                  { belted, limit: beltLimit ?? 0 },
                )}
              {sum((d) => d.elsewhere) > 0 &&
                t(' Besides practice: {minutes} minutes of other singing and talking.', { minutes: sum((d) => d.elsewhere) })}
              {thisWeek &&
                thisWeek.of > 0 &&
                t(
                  ' Of this week’s {of, plural, one {# day} other {# days}} until today, {done, plural, one {# was} other {# were}} kept.',
                  {
                    of: thisWeek.of,
                    done: thisWeek.done,
                  },
                )}
            </p>
            <div aria-hidden className="h-48">
              <MinutesChart days={recent.map((d) => ({ day: dateOf(d.day), minutes: Math.round(10 * d.minutes) / 10 }))} />
            </div>
            <table className="sr-only">
              <caption>{t('Minutes practised by day')}</caption>
              <tbody>
                {recent.map((d) => (
                  <tr key={d.day}>
                    <th scope="row">{dateOf(d.day)}</th>
                    <td>
                      {t('{n, plural, one {# minute} other {# minutes}}', { n: Math.round(d.minutes) })}
                      {d.elsewhere > 0 && t(', and {elsewhere} of other singing', { elsewhere: d.elsewhere })}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
          <section aria-label={t('What each exercise is ready for')} className="card">
            <h2 className="mb-1 text-lg font-bold">{t('Ready for more?')}</h2>
            <ul className="flex flex-col gap-1">
              {items.map((it) => {
                const { step, because } = propose(practisedOf(entries, it.exerciseId), dayKey(new Date()));
                return (
                  <li key={it.exerciseId}>
                    <b>{t(exerciseName(it.exercise))}:</b> {t(STEP_WORDS[step])}. <span className="text-soft">{t(because)}</span>
                  </li>
                );
              })}
            </ul>
          </section>
          <section aria-label={t('The log')} className="card">
            <h2 className="mb-1 text-lg font-bold">{t('The log')}</h2>
            <ul>
              {[...entries]
                .reverse()
                .slice(0, LISTED)
                .map((e) => (
                  <li key={e.id} className="flex flex-wrap items-baseline gap-x-3 py-0.5" data-testid="entry">
                    <span className="w-16 text-soft">{dateOf(e.day)}</span>
                    {isDone(e) ? (
                      <span>
                        {t('{exercise} on “{sound}”, {minutes} min', {
                          exercise: e.what.name,
                          sound: e.what.sound,
                          minutes: Math.max(1, Math.round(e.what.seconds / 60)),
                        })}
                        {e.what.byHand && t(', told afterwards')}
                        {e.what.effort !== null && t(', effort {effort}', { effort: e.what.effort })}
                        {e.what.signs.length > 0 && <b className="text-warn"> {t(toldInWords(e.what) ?? '')}</b>}
                        {feltInWords(e.what).map((felt) => t(felt))}
                        {t(heardInWords(e.what) ?? '')}
                        {e.what.word && <q className="font-semibold"> {e.what.word}</q>}
                        {e.what.spokenS && <Spoken entryId={e.id} seconds={e.what.spokenS} here={spoken.includes(e.id)} clip={clip} />}
                      </span>
                    ) : (
                      <span>
                        {toldInWords(e.what) ? (
                          <b className="text-warn">{t(toldInWords(e.what)!)}</b>
                        ) : e.what.kind === 'elsewhere' ? (
                          t(elsewhereInWords(e.what))
                        ) : isTrial(e) ? (
                          t(trialInWords(e.what))
                        ) : isCheck(e) ? (
                          checkInWords(e.what, entries, e.day)
                            .map((line) => t(line))
                            .join(' ')
                        ) : (
                          t('all well before')
                        )}
                      </span>
                    )}
                    {isDone(e) && e.what.success === null && <Granted entry={e} name={e.what.name} />}
                    {isDone(e) && (e.what.word || e.what.spokenS) && (
                      <div className="w-full pl-[4.75rem]">
                        <KeptNote
                          label={t('Your answer, shown on the phone')}
                          method="PUT"
                          path={addressOf('PUT /api/practice/[entryId]', { entryId: e.id })}
                          field="answer"
                          stored={e.answer ?? ''}
                          maxLength={2000}
                        />
                      </div>
                    )}
                  </li>
                ))}
            </ul>
            {clip.problem && <p role="alert">{t(clip.problem)}</p>}
          </section>
        </>
      )}
    </div>
  );
}
