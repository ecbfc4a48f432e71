import type { Anchors } from '../exercise/keys';
import type { Exercise } from '../exercise/types';
import type { DayBent } from '../plan/dates';
import { STEP_MINUTES } from '../plan/dose';
import { ruleForToday, Today } from '../plan/safety';
import { forToday, lowered } from '../plan/today';
import { said, Said, texts } from '../words/said';
import type { PlanItem } from '../plan/types';
import { isBelt } from './belt';
import type { OtherSinging } from './elsewhere';
import type { Readiness } from './readiness';

/** What bears on a day: its answers, the way back from a day that was not well, its date, the check of the voice, and other singing. */
export interface OfDay {
  today: Today | null;
  /** Share of the minutes on the way back (core/practice/health.ts). */
  returning: number;
  bent: DayBent | null;
  /** The week's belting is done (core/practice/belt.ts). */
  belted: boolean;
  readiness: Pick<Readiness, 'lowerSt' | 'share' | 'because'> | null;
  /** What other singing leaves (core/practice/elsewhere.ts). */
  elsewhere: OtherSinging | null;
}

/** A day's work, the share of its minutes, and why it isn't as usual, in sentences. */
export interface WorkOfDay<T> {
  items: T[];
  share: number;
  because: Said[];
}

/**
 * What is sung on a day: its items (or, on a day that has one, its own set), as the answers, the date and the check leave them. Each
 * takes away; none gives back what another took.
 *
 * @param set the items of the date's own set, where it has one
 */
export function workOfDay<T extends PlanItem & { exercise: Exercise }>(
  items: readonly T[],
  set: readonly T[] | null,
  { today, returning, bent, belted, readiness, elsewhere }: OfDay,
  anchors: Pick<Anchors, 'low' | 'change'>,
): WorkOfDay<T> {
  const unwell = ruleForToday(today) !== null;
  const share = Math.min(unwell ? 1 : returning, bent && !bent.set ? bent.load : 1, readiness?.share ?? 1, elsewhere?.share ?? 1);
  const { lowerSt = 0 } = readiness ?? {};
  const usual = bent?.set && set ? set : items.filter(({ exercise }) => !bent?.light || isLight(exercise));
  const spared = usual.filter(({ exercise }) => !elsewhere?.light || isLight(exercise));
  const asked = spared.filter(({ exercise }) => !belted || !isBelt(exercise));
  const left = forToday(asked, today, anchors.change).flatMap((it) => {
    const keys = lowered(it.exercise, it.keys, lowerSt, anchors);
    return keys.length ? [{ ...it, keys, minutes: share < 1 ? Math.max(STEP_MINUTES, it.minutes * share) : it.minutes }] : [];
  });
  return {
    items: left,
    share,
    because: [
      ...(!unwell && returning < 1
        ? [said('On the way back: {percent} % of the usual minutes today, and softer.', { percent: Math.round(returning * 100) })]
        : []),
      ...(bent ? [bent.because] : []),
      ...(elsewhere ? [elsewhere.because] : []),
      ...(asked.length < spared.length
        ? [said('The week’s belting is done: what carries chest high rests until there is room again.')]
        : []),
      ...(lowerSt > 0
        ? [
            said('Today what reaches above the change is {by} lower, and {percent} % of the minutes.', {
              by: LOWER_BY[lowerSt],
              percent: Math.round(share * 100),
            }),
            ...readiness!.because,
          ]
        : []),
    ],
  };
}

/** What is sung when a voice is spared: no test, no weight, no range. */
const isLight = ({ role, weight, strand }: Exercise) => role !== 'test' && weight <= 0 && (strand !== 'range' || weight < 0);

/** How much lower a day is sung, by semitones, 0 to 3. */
export const LOWER_BY = texts(['', 'a semitone', 'a tone', 'a tone and a half']);

/** Why no song is sung on a day; null where songs may be. */
export function songsRest({ today, returning, bent, elsewhere }: Pick<OfDay, 'today' | 'returning' | 'bent' | 'elsewhere'>): Said | null {
  if (ruleForToday(today)) return said('No songs today: they ask more of a voice than exercises do.');
  if (returning < 1) return said('No songs on the way back: exercises first.');
  if (elsewhere?.light) return said('No songs today: the voice has worked enough.');
  return bent?.set ? said('No songs beside what the day asks for.') : null;
}
