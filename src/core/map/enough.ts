import { TakeEvidence } from './types';

/** Takes this far apart were sung on different days, whatever the clock says (a lesson is shorter, a night longer). */
const ANOTHER_DAY_MS = 6 * 3_600_000;
/** One take proves nothing and the voice differs from day to day (common practice, no source). */
const LEAST_TAKES = 2;
const LEAST_DAYS = 2;
/** Passes each way that must have gone by a change before it is stated (common practice, no source). */
export const LEAST_PASSES = 2;

/** On how many days takes were sung; those without a date are of one sitting. */
function dayCount(takes: readonly TakeEvidence[]): number {
  const times = takes.map((t) => t.recordedAt ?? 0).sort((a, b) => a - b);
  return times.filter((t, i) => i === 0 || t - times[i - 1] > ANOTHER_DAY_MS).length;
}

/** Whether takes bear a statement; what fewer say is a first impression: given all the same, and marked as one. */
export const isEnough = (takes: readonly TakeEvidence[]): boolean => takes.length >= LEAST_TAKES && dayCount(takes) >= LEAST_DAYS;
