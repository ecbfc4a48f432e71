import type { Said } from '../words/said';

/** A recording that has ended, as far as it matters here. */
export interface EndedTake {
  take: { id: string };
}

/** Where one take of anything stands on the page that made it, from its end to what was found in it. */
export interface TakeStand<Take extends EndedTake, Found> {
  at: 'idle' | 'storing' | 'analysing' | 'result';
  /** The take that is followed; what becomes of any other is no news to who is looking at this one. */
  take: Take | null;
  /** What was found in it, here or by the server. */
  found: Found | null;
  /** What was discarded last and can be taken back. */
  discarded: Take | null;
  problem: Said | null;
}

export type TakeNews<Take extends EndedTake, Found> =
  /** Another take is about to begin. */
  | { kind: 'begun' }
  /** It has ended (or was a file, or is tried again): on its way to the server. */
  | { kind: 'ended'; take: Take }
  /** It was heard right here, which may be sooner than the server has it. */
  | { kind: 'heard'; id: string; found: Found }
  /** The server has it and listens. */
  | { kind: 'stored'; id: string }
  /** The server's own analysis. */
  | { kind: 'analysed'; id: string; found: Found }
  /** It couldn't be sent: it waits somewhere else, or was refused with a reason. */
  | { kind: 'unsent'; id: string; heardHere: boolean; problem: Said | null }
  | { kind: 'discarded'; id: string }
  /** Anything else that went wrong; `id`: with that take. */
  | { kind: 'problem'; problem: Said; id?: string };

export const FRESH: TakeStand<never, never> = { at: 'idle', take: null, found: null, discarded: null, problem: null };

/**
 * Where a take stands after news of it. News of a take that isn't followed changes nothing but the problem it may bring.
 *
 * @example takeStand(FRESH, { kind: 'ended', take }).at // 'storing'
 */
export function takeStand<Take extends EndedTake, Found>(
  stand: TakeStand<Take, Found>,
  news: TakeNews<Take, Found>,
): TakeStand<Take, Found> {
  const isIt = 'id' in news && news.id !== undefined && news.id === stand.take?.take.id;
  switch (news.kind) {
    case 'begun':
      return FRESH;
    case 'ended': {
      const again = news.take.take.id === stand.take?.take.id;
      const undone = news.take.take.id === stand.discarded?.take.id;
      return {
        at: 'storing',
        take: news.take,
        found: again ? stand.found : null,
        discarded: undone ? null : stand.discarded,
        problem: null,
      };
    }
    case 'heard':
      // The server's own stays.
      return isIt ? { ...stand, at: 'result', found: stand.found ?? news.found } : stand;
    case 'stored':
      return isIt ? { ...stand, at: stand.found ? 'result' : 'analysing' } : stand;
    case 'analysed':
      return isIt ? { ...stand, at: 'result', found: news.found } : stand;
    case 'unsent':
      if (!isIt) return stand;
      return { ...stand, at: news.heardHere ? stand.at : 'idle', problem: news.problem ?? stand.problem };
    case 'discarded':
      return isIt ? { ...FRESH, discarded: stand.take } : stand;
    case 'problem': {
      const rests = stand.found ? 'result' : 'idle';
      return { ...stand, at: isIt || news.id === undefined ? rests : stand.at, problem: news.problem };
    }
  }
}
