import { subDays, subMonths } from 'date-fns';
import { keepsSince, studioSettings } from '../data/studios';
import { removeSpoken } from '../data/spoken';
import { removeSound } from '../data/take-audio';
import type { Context } from './context';

/** Days a new time of keeping stands before anything is deleted by it: time to see that it was a mistake (our choice). */
const GRACE_DAYS = 3;

/** Delete the sound of a studio's takes, and words spoken, that are older than its settings keep them. How many. */
export async function sweepSound({ tx, now }: Context): Promise<number> {
  const { keepMonths } = await studioSettings(tx);
  if (keepMonths === null || (await keepsSince(tx)) > subDays(now, GRACE_DAYS)) return 0;
  const before = subMonths(now, keepMonths);
  return (await removeSound(tx, before)) + (await removeSpoken(tx, before));
}
