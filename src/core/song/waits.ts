import { said, Said } from '../words/said';
import type { SongKey } from './keys';

/** What a singer's road says of songs now. */
export interface SongsNow {
  /** The phase, and which share of its singing is songs; null: no plan yet. */
  phase: { name: string; carryShare: number } | null;
  /** Days to the next thing sung in public, and the songs of it; null: none is known. */
  show: { days: number; songs: readonly string[] } | null;
}

/** In a phase that leaves songs less than this, what goes wrong in them waits (common practice, no source; the phases' own shares are 10 to 50 %). */
const LITTLE = 0.2;
/** Nothing new is begun so near to something sung in public (common practice, no source). */
const NEAR_SHOW_DAYS = 42;

/**
 * Why a song had better wait; null where it needn't. What is sung in the show, or was sung before, is nothing new.
 *
 * @param key the song in the key it would be sung in; null: only its title is known
 */
export function waits(title: string, key: Pick<SongKey, 'level'> | null, sungBefore: boolean, { phase, show }: SongsNow): Said | null {
  if (show?.songs.includes(title)) return null;
  if (show && show.days <= NEAR_SHOW_DAYS && !sungBefore)
    return show.days === 0
      ? said('Let it wait: today is sung in public, and nothing new begins before.')
      : said('Let it wait: {days, plural, one {# day} other {# days}} to what is sung in public, and nothing new begins before.', {
          days: show.days,
        });
  if (phase && phase.carryShare < LITTLE && key?.level === 'risky')
    return said('Let it wait: in “{phase}” what is risky in songs is drilled in phrases, not sung through.', { phase: phase.name });
  return null;
}
