import { mean, residualMeanSquare, seededRandom } from '../signal/stats';
import type { TakeFindings } from '../take/types';
import { measuresByDay } from './measures';
import { ARMS, Arm, Broke, Entry, isTrial, TrialLine } from './types';

/**
 * A trial of one: straw, humming or nothing, two minutes before the same slides, one a day in an order that is drawn in rounds of
 * three days, so that for this one voice it is told what each does to the leap at its change.
 *
 * It is read twice only, after `LOOKS` rounds: whoever looks every day finds something sooner or later. With the five per cent
 * shared between the two readings (Pocock 1977: 0.0294 each, from memory) and the two comparisons with nothing, each is read at a
 * two-sided 0.0147.
 */
export const LOOKS = [6, 12] as const;

/** A leap that changes by less than this matters to nobody (this house's; published flips leap 2 to 6 semitones). */
export const MATTERS_ST = 0.75;

/** What a day's difference is known to at best, semitones: days that are more alike than this are so by chance (this house's). */
const LEAST_SCATTER_ST = 0.2;
/** Student's t, two-sided 0.0147, for the degrees of freedom at each reading, 2 (rounds - 1) (scipy). */
const T_AT_LOOK = [2.9434, 2.6477] as const;

/** What is sung so soon after is what it does; from so late on, what of it lasts, minutes. */
const SOON_MIN = 5;
const LATER_MIN = [8, 30] as const;

/** What one arm does more than nothing: to the leap, semitones, less is better; with its interval. */
export interface Effect {
  arm: Exclude<Arm, 'nothing'>;
  by: number;
  lowBy: number;
  highBy: number;
  told: 'smaller' | 'larger' | 'no difference' | 'not told';
}

export interface Trial {
  /** Days sung, and the day of the next reading (the last one's, where it is over). */
  days: number;
  of: number;
  /** Of the newest reading; empty before the first. */
  effects: Effect[];
  /** The same ten minutes and more later, where it was sung on as many days; empty else. */
  later: Effect[];
  /** It has told what it can. */
  over: boolean;
}

/** Passes by the change that tell how a voice breaks: two slides, up and down. */
const LEAST_PASSES = 3;

/** How a voice breaks in the slides of one take; null where too few of them pass its change. */
export function brokeIn(findings: TakeFindings, changeMidi: number): Broke | null {
  const [of] = measuresByDay([{ takeId: '', findings, marks: [], day: '' }], changeMidi);
  if (!of || (of.passes.leap?.length ?? 0) < LEAST_PASSES) return null;
  return { leapSt: of.values.leap!, heard: of.values.heard! };
}

/** The trial that is under way, else the newest that was sung; null: there was none. */
export function shownTrial(log: readonly Entry[], underWay: string | undefined): (Trial & { underWay: boolean }) | null {
  const id = underWay ?? log.filter(isTrial).at(-1)?.what.trial;
  return id === undefined ? null : { ...trialOf(log, id), underWay: id === underWay };
}

const linesOf = (log: readonly Entry[], trial: string) =>
  log
    .filter(isTrial)
    .filter((e) => e.what.trial === trial)
    .sort((a, b) => a.at.localeCompare(b.at));

/** The days of a trial in their order, each with what was sung at once, and what was sung later. */
function daysOf(log: readonly Entry[], trial: string): { day: string; at: string; soon: TrialLine; later: TrialLine | null }[] {
  const lines = linesOf(log, trial);
  const seen = new Set<string>();
  return lines.flatMap(({ day, at, what }) => {
    if (what.minutes > SOON_MIN || seen.has(day)) return [];
    seen.add(day);
    const later = lines.find((e) => e.day === day && e.what.minutes >= LATER_MIN[0])?.what ?? null;
    return [{ day, at, soon: what, later }];
  });
}

/** The arms of a round in the order they are drawn in: the same wherever it is asked. */
function drawnOrder(trial: string, round: number): Arm[] {
  // FNV-1a, 32 bits: from a word to a seed.
  let hash = 2166136261;
  for (const sign of `${trial} ${round}`) hash = Math.imul(hash ^ sign.codePointAt(0)!, 16777619) >>> 0;
  const random = seededRandom(hash);
  const left = [...ARMS];
  return ARMS.map(() => left.splice(Math.floor(random() * left.length), 1)[0]);
}

/** What a day's turn is, which the singer isn't told before the first slides are sung; null: sung today already, or the trial is over. */
export function armOn(log: readonly Entry[], trial: string, day: string): Arm | null {
  const days = daysOf(log, trial);
  if (days.some((d) => d.day === day) || trialOf(log, trial).over) return null;
  const round = Math.floor(days.length / ARMS.length);
  const had = new Set(days.slice(round * ARMS.length).map((d) => d.soon.arm));
  return drawnOrder(trial, round).find((arm) => !had.has(arm))!;
}

/** Today's line that can be followed up now, and how many minutes ago it was; null where there is none. */
export function laterDue(log: readonly Entry[], trial: string, day: string, now: Date): { line: TrialLine; minutes: number } | null {
  const today = daysOf(log, trial).find((d) => d.day === day);
  if (!today || today.later) return null;
  const minutes = (now.getTime() - Date.parse(today.at)) / 60_000;
  return minutes >= LATER_MIN[0] && minutes <= LATER_MIN[1] ? { line: today.soon, minutes } : null;
}

/** How a trial stands. */
export function trialOf(log: readonly Entry[], trial: string): Trial {
  const days = daysOf(log, trial);
  const rounds = Math.floor(days.length / ARMS.length);
  const read = LOOKS.filter((at) => rounds >= at).length;
  const effects = effectsIn(
    roundsOf(days, (d) => change(d.soon)),
    read,
  );
  const later = effectsIn(
    roundsOf(days, (d) => (d.later ? change(d.later) : null)),
    read,
  );
  const over = read === LOOKS.length || (read > 0 && effects.every((e) => e.told !== 'not told'));
  return { days: days.length, of: ARMS.length * LOOKS[over ? read - 1 : read], effects, later, over };
}

const change = ({ before, after }: TrialLine) => after.leapSt - before.leapSt;

/** Whole rounds: what each arm did on its day; those in which a value is missing are left out. */
function roundsOf<T extends { soon: TrialLine }>(days: readonly T[], value: (day: T) => number | null): Record<Arm, number>[] {
  return Array.from({ length: Math.floor(days.length / ARMS.length) }, (_, r) =>
    days.slice(r * ARMS.length, (r + 1) * ARMS.length),
  ).flatMap((round) => {
    const values = round.flatMap((d) => {
      const v = value(d);
      return v === null ? [] : [[d.soon.arm, v] as const];
    });
    return values.length === ARMS.length ? [Object.fromEntries(values) as Record<Arm, number>] : [];
  });
}

/**
 * Each arm against nothing, in randomised complete blocks: means over rounds of the differences within a round, the scatter from what
 * is left when rounds and arms are taken out (two-way analysis of variance without interaction). Empty until there are as many rounds
 * as the reading (first, second) is of.
 */
function effectsIn(all: readonly Record<Arm, number>[], read: number): Effect[] {
  if (read === 0 || all.length < LOOKS[read - 1]) return [];
  const rounds = all.slice(0, LOOKS[read - 1]);
  const n = rounds.length;
  const armMean = (arm: Arm) => mean(rounds.map((r) => r[arm]));
  const scatter = Math.max(LEAST_SCATTER_ST, Math.sqrt(residualMeanSquare(rounds.map((r) => ARMS.map((arm) => r[arm])))));
  const reach = T_AT_LOOK[read - 1] * scatter * Math.sqrt(2 / n);
  return ARMS.flatMap((arm): Effect[] => {
    if (arm === 'nothing') return [];
    const by = armMean(arm) - armMean('nothing');
    const [lowBy, highBy] = [by - reach, by + reach];
    return [{ arm, by, lowBy, highBy, told: toldOf(lowBy, highBy) }];
  });
}

function toldOf(lowBy: number, highBy: number): Effect['told'] {
  if (highBy < 0) return 'smaller';
  if (lowBy > 0) return 'larger';
  return lowBy > -MATTERS_ST && highBy < MATTERS_ST ? 'no difference' : 'not told';
}
