import { inCents, said, Said } from '../words/said';
import { dayLater, daysBetween } from '../plan/days';
import { ruleForSign, ruleForToday, SafetyRule } from '../plan/safety';
import { mean } from '../signal/stats';
import { CHECKED, CheckedId } from './voice-check';
import { Check, Entry, isCheck, isDone } from './types';

/** How one measure of a check stands against this voice's good days. */
export interface Stands {
  id: CheckedId;
  value: number;
  usual: number;
  /** How far off to the worse, in what good days differ by; negative: better. */
  worse: number;
}

/** What a check makes of a day. */
export interface Readiness {
  /** Good days it is compared with; under `LEAST_DAYS` nothing is concluded. */
  days: number;
  /** Semitones by which what reaches above the change is sung lower. */
  lowerSt: number;
  /** Share of the day's minutes. */
  share: number;
  /** The soft note, there on other days, didn't come: rest. */
  gone: SafetyRule | null;
  stands: Stands[];
  /** Why, in sentences. */
  because: Said[];
}

/** Good days that a check can be compared with, from so many days back, of the same soft note. */
const LEAST_DAYS = 2;
const DAYS_BACK = 60;
const SAME_MARKER_ST = 1;
/** What is usual counts for so many good days more: so far it is assumed, the voice's own days take over. */
const USUAL_DAYS = 4;

/**
 * From so many standard deviations to the worse a day is sung 1, 2, 3 semitones lower. At no change one day in twenty is called worse
 * (seven measures, simulated in readiness.test.ts).
 */
const WORSE_AT = [2.7, 3.6, 4.8] as const;
/** A second measure so far off makes it a semitone more. */
const ALSO_WORSE = 2;
export const MOST_LOWER_ST = 3;
/** Share of the minutes, by semitones lower (common practice, no source). */
const SHARES = [1, 0.8, 0.6, 0.4] as const;

/** How far a value is to the worse of those of good days: a prediction interval's t, with the assumed scatter as `USUAL_DAYS` days more. */
export function worseBy(value: number, good: readonly number[], { worse, usual }: { worse: 1 | -1; usual: number }): number {
  const middle = mean(good);
  const squares = good.reduce((s, g) => s + (g - middle) ** 2, 0) + USUAL_DAYS * usual ** 2;
  const sd = Math.sqrt(squares / (good.length - 1 + USUAL_DAYS));
  return (worse * (value - middle)) / (sd * Math.sqrt(1 + 1 / good.length));
}

/** The checks of days on which nothing was wrong, before a day, one a day, that are comparable with one. */
function goodChecks(log: readonly Entry[], day: string, { markerMidi, warm }: Check): Check[] {
  const from = dayLater(day, -DAYS_BACK);
  const wrong = new Set(
    log.flatMap((e) =>
      e.what.kind === 'before' ? (ruleForToday(e.what) ? [e.day] : []) : isDone(e) && e.what.signs.length > 0 ? [e.day] : [],
    ),
  );
  const byDay = new Map<string, Check>();
  for (const e of log)
    if (isCheck(e) && e.day < day && e.day >= from && !wrong.has(e.day) && !byDay.has(e.day)) {
      const { what } = e;
      if (what.warm === warm && Math.abs(what.markerMidi - markerMidi) <= SAME_MARKER_ST) byDay.set(e.day, what);
    }
  return [...byDay.values()];
}

/** A check against this voice's good days before its day. */
export function readinessOf(check: Check, log: readonly Entry[], day: string): Readiness {
  const good = goodChecks(log, day, check);
  const sounded = good.filter((c) => c.sounded);
  const stands = CHECKED.flatMap(({ id, ...of }): Stands[] => {
    const value = check.checked[id];
    const values = good.flatMap((c) => c.checked[id] ?? []);
    if (value === undefined || values.length < LEAST_DAYS) return [];
    return [{ id, value, usual: mean(values), worse: worseBy(value, values, of) }];
  }).sort((a, b) => b.worse - a.worse);
  const gone = check.sounded === false && sounded.length >= LEAST_DAYS ? ruleForSign('soft-gone') : null;
  const [worst, next] = stands;
  const by = worst ? WORSE_AT.filter((at) => worst.worse >= at).length : 0;
  const also = by > 0 && next && next.worse >= ALSO_WORSE ? 1 : 0;
  const lowerSt = gone ? MOST_LOWER_ST : Math.min(MOST_LOWER_ST, by + also);
  return {
    days: good.length,
    lowerSt,
    share: SHARES[lowerSt],
    gone,
    stands,
    because: [
      ...(gone ? [gone.says] : []),
      ...stands.filter((s, i) => lowerSt > 0 && (i === 0 ? by > 0 : s.worse >= ALSO_WORSE)).map((s) => sentence(s, check.markerMidi)),
    ],
  };
}

/** What holds on a day: of its checks before singing the one that leaves least; null where there was none. */
export function readinessOn(log: readonly Entry[], day: string): Readiness | null {
  const cold = log.filter((e) => e.day === day).filter((e) => isCheck(e) && !e.what.warm);
  const all = cold.map((e) => readinessOf(e.what as Check, log, day));
  return all.sort((a, b) => Number(b.gone !== null) - Number(a.gone !== null) || b.lowerSt - a.lowerSt)[0] ?? null;
}

/** The soft note of a warm-up is as on good days: before singing, until there are warm ones to compare with. */
export function isWarm(check: Check, log: readonly Entry[], day: string): boolean | null {
  if (!check.sounded) return check.sounded;
  const own = readinessOf(check, log, day);
  const { stands, days } = own.days >= LEAST_DAYS ? own : readinessOf({ ...check, warm: false }, log, day);
  return days < LEAST_DAYS ? null : stands.every((s) => s.worse < ALSO_WORSE);
}

const tenth = (value: number) => Math.round(value * 10) / 10;

const SENTENCES: Record<CheckedId, (s: Stands, marker: { note: number }) => Said> = {
  speaks: ({ value, usual }) =>
    said('You speak lower than usual: {value}, on good days {usual}.', { value: inCents(value), usual: inCents(usual) }),
  late: ({ value, usual }, marker) =>
    said('The soft {marker} begins {value, number, ::.00} s late; on good days {usual, number, ::.00} s.', { marker, value, usual }),
  airy: ({ value, usual }, marker) =>
    said('The soft {marker} is airier than usual, by {by} dB.', { marker, by: Math.round(usual - value) }),
  unsteady: ({ value, usual }, marker) =>
    said('The soft {marker} is less steady: {value} cents, on good days {usual}.', {
      marker,
      value: Math.round(value),
      usual: Math.round(usual),
    }),
  loud: ({ value, usual }, marker) =>
    said('The soft {marker} only came {by} dB louder than usual.', { marker, by: Math.round(value - usual) }),
  breaks: ({ value, usual }) => said('The siren broke {value} times; on good days {usual}.', { value: tenth(value), usual: tenth(usual) }),
  top: ({ value, usual }) =>
    said('The soft siren ended at {value}; on good days at {usual}.', { value: inCents(value), usual: inCents(usual) }),
};
const sentence = (s: Stands, markerMidi: number): Said => SENTENCES[s.id](s, { note: markerMidi });

/** One day of a voice's checks, as it is followed over weeks. */
export interface CheckedDay extends Pick<Readiness, 'lowerSt' | 'because' | 'days'> {
  day: string;
  gone: boolean;
}

/** Each day with a check before singing, oldest first, each against the good days before it. */
export function checkedDays(log: readonly Entry[]): CheckedDay[] {
  const days = [...new Set(log.flatMap((e) => (isCheck(e) && !e.what.warm ? [e.day] : [])))].sort();
  return days.flatMap((day) => {
    const of = readinessOn(log, day);
    return of ? [{ day, days: of.days, lowerSt: of.lowerSt, because: of.because, gone: of.gone !== null }] : [];
  });
}

/** Days from a day on which the check was worse until it was as usual again; null where it isn't yet. */
export function recoveredAfter(days: readonly CheckedDay[], from: string): number | null {
  const back = days.find((d) => d.day > from && d.lowerSt === 0);
  return back ? daysBetween(from, back.day) : null;
}
