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
): void {
  const days = weekFrom(week.startsOn);
  const nameOf = (id: string) => week.items.find((x) => x.item.exerciseId === id)?.exercise.name ?? '';
  const sessions = setsOf(week.items.map((x) => x.item)).map((s, i) => ({
    id: `${week.id}-${i}`,
    day: days[s.day].key,
    minute: s.minute,
    minutes: s.minutes,
    title: `Practice: ${s.items.length} exercises`,
    words: [...s.items.map((it) => `${nameOf(it.exerciseId)} on “${it.sound}”, ${it.minutes} min`), address].join('\n'),
  }));
  download(fileName(`${singer} ${week.startsOn}`, 'ics'), toIcs(sessions, `${singer}: practice`), 'text/calendar');
}

/** The road of weeks as a file for any calendar: each week with its phase and work, and each day that is unlike the others. */
export function downloadRoad(weeks: readonly RoadWeek[], singer: string, nameOf: (id: string) => string): void {
  const days = weeks.flatMap((w) => [
    {
      id: `${w.startsOn}-week`,
      day: w.startsOn,
      days: 7,
      title: `${singer}, week ${w.number}: ${w.phase.name}`,
      words: [
        w.aim,
        w.items
          .filter(isWork)
          .map((it) => nameOf(it.exerciseId))
          .join(', '),
        ...w.songs.map((s) => `${s.titles.join(', ')}: ${s.says}`),
        ...w.because,
        w.listening ? 'Listen again.' : '',
      ]
        .filter(Boolean)
        .join('\n'),
    },
    ...w.days.map((d) => ({
      id: `${d.day}-day`,
      day: d.day,
      days: 1,
      title: `${singer}: ${d.because}`,
      words: (d.only ?? []).map(nameOf).join('\n'),
    })),
  ]);
  download(fileName(`${singer} road`, 'ics'), daysToIcs(days, `${singer}: the road`), 'text/calendar');
}
