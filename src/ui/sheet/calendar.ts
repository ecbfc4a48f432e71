import { exerciseName } from '../../core/exercise/of-song';
import type { Speaker } from '../language/language';
import type { Exercise } from '../../core/exercise/types';
import { daysToIcs, toIcs } from '../../core/format/ics';
import type { RoadWeek } from '../../core/plan/road';
import { setsOf } from '../../core/plan/sessions';
import { isWork, PlanItem } from '../../core/plan/types';
import { download, fileName } from '../kit/download';
import { weekFrom } from '../plan/days';

/** A week's sets as a file for any calendar, which then reminds of them; each leads to `address`. */
export function downloadCalendar(
  week: { id: string; startsOn: string; items: readonly { item: PlanItem; exercise: Exercise }[] },
  singer: string,
  address: string,
  { t, language }: Speaker,
): void {
  const days = weekFrom(week.startsOn, language);
  const nameOf = (id: string) => {
    const of = week.items.find((x) => x.item.exerciseId === id);
    return of ? exerciseName(of.exercise) : '';
  };
  const sessions = setsOf(week.items.map((x) => x.item)).map((s, i) => ({
    id: `${week.id}-${i}`,
    day: days[s.day].key,
    minute: s.minute,
    minutes: s.minutes,
    title: t('Practice: {n, plural, one {# exercise} other {# exercises}}', { n: s.items.length }),
    words: [
      ...s.items.map((it) =>
        t('{exercise} on “{sound}”, {minutes} min', { exercise: nameOf(it.exerciseId), sound: it.sound, minutes: it.minutes }),
      ),
      address,
    ].join('\n'),
  }));
  download(
    fileName(`${singer} ${week.startsOn}`, 'ics'),
    toIcs(sessions, t('{name}: practice', { name: { own: singer } })),
    'text/calendar',
  );
}

/** The road of weeks as a file for any calendar: each week with its phase and work, and each day that is unlike the others. */
export function downloadRoad(weeks: readonly RoadWeek[], singer: string, nameOf: (id: string) => string, { t }: Speaker): void {
  const days = weeks.flatMap((w) => [
    {
      id: `${w.startsOn}-week`,
      day: w.startsOn,
      days: 7,
      title: t('{singer}, week {n}: {phase}', { singer: { own: singer }, n: w.number, phase: w.phase.name }),
      words: [
        t(w.aim),
        w.items
          .filter(isWork)
          .map((it) => t(nameOf(it.exerciseId)))
          .join(', '),
        ...w.songs.map((s) => `${s.titles.join(', ')}: ${t(s.says)}`),
        ...w.because.map((why) => t(why)),
        w.listening ? t('Listen again.') : '',
      ]
        .filter(Boolean)
        .join('\n'),
    },
    ...w.days.map((d) => ({
      id: `${d.day}-day`,
      day: d.day,
      days: 1,
      title: `${singer}: ${t(d.because)}`,
      words: (d.only ?? []).map((id) => t(nameOf(id))).join('\n'),
    })),
  ]);
  download(fileName(`${singer} road`, 'ics'), daysToIcs(days, t('{name}: the road', { name: { own: singer } })), 'text/calendar');
}
