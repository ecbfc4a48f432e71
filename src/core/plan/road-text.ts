import type { Said } from '../words/said';
import { isWork } from './types';
import type { RoadWeek } from './road';

/** A road of weeks in Markdown, said by `say`: what each is for, what comes in and rests, and why. */
export function roadText(weeks: readonly RoadWeek[], exercise: (id: string) => string, say: (what: Said) => string): string {
  const lines = ['### The road', '', '| week | from | phase | work | comes in | load | |', '|---|---|---|---|---|---|---|'];
  for (const w of weeks) {
    const work = w.items.filter(isWork).map((it) => exercise(it.exerciseId));
    const marks = [w.test && 'test', w.listening && 'listen again'].filter(Boolean).join(', ');
    lines.push(
      `| ${w.number} | ${w.startsOn} | ${w.phase.name} | ${work.join(', ')} | ${w.comesIn.map(exercise).join(', ')} | ${Math.round(w.load * 100)} % | ${marks} |`,
    );
  }
  const said = weeks.flatMap((w) => [
    ...w.because.map((why) => `- Week ${w.number}: ${say(why)}`),
    ...w.days.map((d) => `- ${d.day}: ${say(d.because)}${d.only ? ` (${d.only.map(exercise).join(', ')})` : ''}`),
  ]);
  return [...lines, '', ...said, ''].join('\n');
}
