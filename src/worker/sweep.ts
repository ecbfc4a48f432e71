import { subMonths } from 'date-fns';
import type { StudioTx } from '../data/client';
import { studioSettings } from '../data/studios';
import { removeSound } from '../data/takes';

/** Delete the sound of a studio's takes that is older than its settings keep it. How many takes. */
export async function sweepSound(tx: StudioTx): Promise<number> {
  const { keepMonths } = await studioSettings(tx);
  return keepMonths === null ? 0 : removeSound(tx, subMonths(new Date(), keepMonths));
}
