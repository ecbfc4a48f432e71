import { TakeEvidence } from './types';

/** What was heard this long before the newest take counts half: a voice in training moves within weeks (common practice). */
const HALF_LIFE_DAYS = 60;
const DAY_MS = 86_400_000;

/** Weight of a take by its age against the newest of all, 0..1; 1 where no dates are known. */
export function recencyOf(take: TakeEvidence, all: TakeEvidence[]): number {
  if (take.recordedAt === undefined) return 1;
  let newest = take.recordedAt;
  for (const t of all) if (t.recordedAt !== undefined && t.recordedAt > newest) newest = t.recordedAt;
  return 0.5 ** ((newest - take.recordedAt) / DAY_MS / HALF_LIFE_DAYS);
}
