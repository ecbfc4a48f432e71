import { fitWeightedLine, mean } from '../signal/stats';

/** What was measured on one day: its moment (milliseconds since 1970) and a value for each pass. */
export interface DayValues {
  at: number;
  passes: readonly number[];
}

/** Whether a value has moved, or only scatters from day to day. */
export interface RealChange {
  /** The trend's value on the first day and on the latest. */
  first: number;
  latest: number;
  /** Latest less first, and its 95 % interval. */
  by: number;
  lowBy: number;
  highBy: number;
  /** One standard deviation between days, trend and passes apart. */
  scatter: number;
  /** The interval doesn't hold zero. */
  real: boolean;
}

/** What a value usually differs by from day to day, and from pass to pass of one day: one standard deviation each. */
export interface Usual {
  day: number;
  pass: number;
}

const LEAST_DAYS = 3;
/**
 * What is usual is taken for as good as known from so many days (and passes); after about twice as many the voice's own decide.
 * Tuned by simulation: at no change 5 % are called one, a leap smaller by two semitones over four days of eight passes is found in
 * 80 %.
 */
const USUAL_DAYS = 4;
const USUAL_PASSES = 4;
/** Two-sided 95 % points of Student's t for 1 to 30 degrees of freedom (statistical tables); beyond, the normal's. */
const T95 = [
  12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228, 2.201, 2.179, 2.16, 2.145, 2.131, 2.12, 2.11, 2.101, 2.093, 2.086,
  2.08, 2.074, 2.069, 2.064, 2.06, 2.056, 2.052, 2.048, 2.045, 2.042,
];
const NORMAL95 = 1.96;

/**
 * The change from the first day to the latest: a straight trend through the days' means, apart from what days differ by and from what
 * passes of one day differ by. A day of n passes varies by  tau^2 + s^2 / n;  s is pooled within days, tau solves the moment
 * equation of Paule & Mandel (1982) about the trend, and what is `usual` stands in for USUAL_DAYS more days and USUAL_PASSES more
 * passes; Student's t then tells the interval. Null for fewer than three days, or when all were on one.
 */
export function realChange(days: readonly DayValues[], usual: Usual): RealChange | null {
  const n = days.length;
  if (n < LEAST_DAYS) return null;
  const sorted = [...days].sort((a, b) => a.at - b.at);
  const span = sorted[n - 1].at - sorted[0].at;
  if (span <= 0) return null;
  const x = sorted.map((d) => (d.at - sorted[0].at) / span);
  const y = sorted.map((d) => mean(d.passes));
  const within = passVariance(sorted, usual.pass);
  const own = sorted.map((d) => within / d.passes.length);
  const scatter = Math.sqrt(betweenDays(x, y, own, usual.day));
  const { first, slope, slopeVariance } = trend(
    x,
    y,
    own.map((v) => v + scatter ** 2),
  );
  const reach = (T95[n - 2 + USUAL_DAYS - 1] ?? NORMAL95) * Math.sqrt(slopeVariance);
  return {
    first,
    latest: first + slope,
    by: slope,
    lowBy: slope - reach,
    highBy: slope + reach,
    scatter,
    real: Math.abs(slope) > reach,
  };
}

/** Variance between passes of one day, pooled over days. */
function passVariance(days: readonly DayValues[], usual: number): number {
  let squares = USUAL_PASSES * usual ** 2;
  let freedom = USUAL_PASSES;
  for (const { passes } of days) {
    const middle = mean(passes);
    squares += passes.reduce((s, p) => s + (p - middle) ** 2, 0);
    freedom += passes.length - 1;
  }
  return squares / freedom;
}

/** The line through days of variances of their own; x runs from 0 to 1, so that the slope is the whole change. */
function trend(x: number[], y: number[], variance: number[]): { first: number; slope: number; slopeVariance: number } {
  const { slope, intercept, spread } = fitWeightedLine(
    x,
    y,
    variance.map((v) => 1 / v),
  );
  return { first: intercept, slope, slopeVariance: 1 / spread };
}

const HALVINGS = 60;

/** Variance between days: the one at which the days' departures from the trend are as large as it says, by halving. */
function betweenDays(x: number[], y: number[], own: number[], usual: number): number {
  const wanted = x.length - 2 + USUAL_DAYS;
  const excess = (tau2: number) => {
    const variance = own.map((v) => v + tau2);
    const { first, slope } = trend(x, y, variance);
    const departures = y.reduce((s, v, i) => s + (v - first - slope * x[i]) ** 2 / variance[i], 0);
    return departures + (USUAL_DAYS * usual ** 2) / tau2 - wanted;
  };
  let low = 1e-6 * usual ** 2;
  let high = usual ** 2 + y.reduce((s, v) => s + (v - mean(y)) ** 2, 0) + 1e-12;
  for (let i = 0; i < HALVINGS; i++) {
    const middle = Math.sqrt(low * high);
    if (excess(middle) > 0) low = middle;
    else high = middle;
  }
  return Math.sqrt(low * high);
}
