import { Said, texts } from '../words/said';
import { notesInWords } from '../exercise/keys';
import { FindingName } from '../map/types';
import { noteName } from '../music/pitch';
import { fullest } from './dose';
import { RULES } from './rules';
import { Part, Plan } from './types';

export const PART_WORDS: Record<Part, string> = texts({
  'warm-up': 'Warm-up',
  'straw-before': 'Straw or trill, before',
  work: 'Work',
  counterweight: 'Counterweight',
  carry: 'Into a song',
  test: 'Test',
  'straw-after': 'Straw or trill, after',
});

const DAYS = ['1', '2', '3', '4', '5', '6', '7'];

/** A plan in Markdown, said by `say`: what, where, how long, why; the rules that decided; what was left out. */
export function planText(
  plan: Plan,
  names: { exercise: (id: string) => string; finding: (name: FindingName) => string },
  say: (what: Said) => string,
): string {
  const dose = fullest(plan.items);
  const phase = plan.phases[plan.phase];
  const works = plan.worksOn.map((f) => names.finding(f).toLowerCase()).join(' and ') || 'keeping the voice in shape';
  const lines = [
    plan.narrow
      ? `Only the comfortable band, between ${noteName(plan.anchors.low)} and ${noteName(plan.anchors.high)}.`
      : `Works on **${works}** around **${noteName(plan.anchors.change)}**${plan.changeMeasured ? '' : ' (expected; none was measured)'}, between ${noteName(plan.anchors.low)} and ${noteName(plan.anchors.high)}.`,
    '',
    `Phase ${plan.phase + 1} of ${plan.phases.length}, **${phase.name}** (${phase.weeks.join(' to ')} weeks): ${phase.aim} It ends when ${phase.until}.`,
    '',
    ...plan.notes.map((n) => `- ${say(n)}`),
    '',
    `A set takes ${dose.set} minutes, a full day ${dose.day}.`,
    '',
    '| | exercise | on | keys | min × a day | days |',
    '|---|---|---|---|---|---|',
    ...plan.items.map(
      (it) =>
        `| ${PART_WORDS[it.part]} | ${names.exercise(it.exerciseId)} | ${it.sound} | ${say(notesInWords(it.keys))} | ${it.minutes} × ${it.timesADay} | ${it.days.map((d) => DAYS[d]).join(' ')} |`,
    ),
    '',
    '### Why',
    '',
    ...plan.items.flatMap((it) => [
      `**${names.exercise(it.exerciseId)}.** ${say(it.reason)} ${say(it.advance)} *${say(it.caution)}*`,
      '',
      `Rules: ${it.rules.map((r) => RULES[r]).join(' ')}`,
      '',
    ]),
    '### Left out',
    '',
    ...plan.leftOut.map((l) => `- ${names.exercise(l.exerciseId)}: ${say(l.because)}`),
    '',
  ];
  return lines.join('\n');
}
