import { said, Said } from '../words/said';
import type { Ceiling, NoteLevel } from './types';

/** Under so many dB below the middle a ceiling asks for soft singing, over so many above it leaves full singing alone (this house's). */
const SOFT_UNDER_DB = -2;
const FULL_OVER_DB = 4;

/** The note with the lowest ceiling among those from `low` to `high`, MIDI; null where none of them is known. */
export function lowestCeiling(ceiling: Ceiling | undefined, low: number, high: number): NoteLevel | null {
  const known = (ceiling?.notes ?? []).filter(({ midi }) => midi >= low && midi <= high);
  return known.length ? known.reduce((a, b) => (b.db < a.db ? b : a)) : null;
}

/**
 * How soft something that goes from `low` to `high` is to be sung so that it stays joined, in a singer's words; null where it may be as
 * loud as it likes, or nothing is known. @example howSoft(ceiling, 53, 65) // "Soft near F4: louder than that it breaks there."
 */
export function howSoft(ceiling: Ceiling | undefined, low: number, high: number): Said | null {
  const at = lowestCeiling(ceiling, low, high);
  if (!at || at.db > FULL_OVER_DB) return null;
  const note = { note: at.midi };
  return at.db < SOFT_UNDER_DB
    ? said('Soft near {note}: louder than that it breaks there.', { note })
    : said('No more than medium loud near {note}: louder than that it breaks there.', { note });
}
