import type { Exercise } from '../exercise/types';
import { dayLater } from '../plan/days';
import { DAYS_A_WEEK } from '../plan/types';
import { Entry, isDone } from './types';

type Belted = Pick<Exercise, 'strand' | 'weight' | 'aim' | 'place'>;

/** Carried high in chest on purpose, with weight added: what a coach sets a limit for. */
export const isBelt = ({ strand, weight, aim, place }: Belted): boolean =>
  strand === 'chest' && weight > 0 && aim !== 'across' && place !== 'away';

/** From so far under the change up belting counts (common practice, no source). */
const UNDER_CHANGE_ST = 2;

/** The pitch from which an exercise counts as belting in a voice, MIDI; null where it isn't belted. */
export const beltedFrom = (e: Belted, changeMidi: number): number | null => (isBelt(e) ? changeMidi - UNDER_CHANGE_ST : null);

/** Minutes belted in the seven days up to and with a day, as far as somebody listened. */
export function beltMinutes(entries: readonly Entry[], day: string): number {
  const from = dayLater(day, 1 - DAYS_A_WEEK);
  return entries.filter(isDone).reduce((sum, e) => (e.day >= from && e.day <= day ? sum + (e.what.load?.beltS ?? 0) / 60 : sum), 0);
}
