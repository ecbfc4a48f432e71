import { subDays, subMonths } from 'date-fns';
import { keepsSince, studioSettings } from '../data/studios';
import { removeSound } from '../data/takes';
import type { Context } from './context';

/** Days a new time of keeping stands before anything is deleted by it: time to see that it was a mistake (our choice). */
const GRACE_DAYS = 3;

/** Delete the sound of a studio's takes that is older than its settings keep it. How many takes. */
export async function sweepSound({ tx, now }: Context): Promise<number> {
  const { keepMonths } = await studioSettings(tx);
  if (keepMonths === null || (await keepsSince(tx)) > subDays(now, GRACE_DAYS)) return 0;
  return removeSound(tx, subMonths(now, keepMonths));
}
