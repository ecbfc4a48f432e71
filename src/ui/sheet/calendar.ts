import type { Exercise } from '../../core/exercise/types';
import { toIcs } from '../../core/format/ics';
import { setsOf } from '../../core/plan/sessions';
import type { PlanItem } from '../../core/plan/types';
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
