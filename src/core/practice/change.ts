/** Whether a value has moved, or only scatters from day to day. */
export interface RealChange {
  first: number;
  latest: number;
  /** Latest less first. */
  by: number;
  /** One standard deviation between days. */
  scatter: number;
  /** A change smaller than this is within the scatter (95 %). */
  least: number;
  real: boolean;
}

/** So many days at each end are averaged, as far as there are enough. */
const MOST_AT_END = 3;
const LEAST_DAYS = 4;
/** Two-sided 95 % points of Student's t for 1 to 30 degrees of freedom (statistical tables); beyond, the normal's. */
const T95 = [
  12.706, 4.303, 3.182, 2.776, 2.571, 2.447, 2.365, 2.306, 2.262, 2.228, 2.201, 2.179, 2.16, 2.145, 2.131, 2.12, 2.11, 2.101, 2.093, 2.086,
  2.08, 2.074, 2.069, 2.064, 2.06, 2.056, 2.052, 2.048, 2.045, 2.042,
];
const NORMAL95 = 1.96;

const mean = (values: readonly number[]) => values.reduce((s, v) => s + v, 0) / values.length;

/**
 * The change between the first and the latest days of a series (oldest first), against what days differ by anyway. The scatter is
 * taken from successive differences (von Neumann 1941), which a slow change doesn't inflate; the change is real when it passes the
 * 95 % point of Student's t for means of that many days. Null for fewer than four days.
 */
export function realChange(values: readonly number[]): RealChange | null {
  const n = values.length;
  if (n < LEAST_DAYS) return null;
  const end = Math.min(MOST_AT_END, Math.floor(n / 2));
  const first = mean(values.slice(0, end));
  const latest = mean(values.slice(-end));
  const steps = values.slice(1).map((v, i) => v - values[i]);
  const scatter = Math.sqrt(mean(steps.map((d) => d * d)) / 2);
  // n - 1 overlapping differences carry about two thirds as many degrees of freedom.
  const freedom = Math.max(1, Math.round(((n - 1) * 2) / 3));
  const least = (T95[freedom - 1] ?? NORMAL95) * scatter * Math.sqrt(2 / end);
  const by = latest - first;
  return { first, latest, by, scatter, least, real: Math.abs(by) > least && Math.abs(by) > 1e-9 };
}
