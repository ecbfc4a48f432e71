import { otherSinging } from './elsewhere';
import { readinessOn } from './readiness';
import type { Entry } from './types';
import { LOWER_BY } from './work-of-day';
import { said, Said } from '../words/said';

/** What a singer's log says of a day to the coach of a lesson: by how much its check lowers what reaches above the change, and why. */
export function voiceToday(log: readonly Entry[], day: string): { lowerSt: number; because: Said[] } {
  const readiness = readinessOn(log, day);
  const lowerSt = readiness?.lowerSt ?? 0;
  const elsewhere = otherSinging(log, day);
  return {
    lowerSt,
    because: [
      ...(readiness && lowerSt > 0
        ? [said('The check of today: what reaches above the change is {by} lower.', { by: LOWER_BY[lowerSt] }), ...readiness.because]
        : []),
      ...(elsewhere ? [elsewhere.because] : []),
    ],
  };
}
