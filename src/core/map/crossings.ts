import type { Trace } from '../take/types';
import type { Vote } from './types';

/** So much of a pass is laid around its change, seconds to each side: enough to see where it comes from and where it settles. */
export const ASIDE_S = 1.2;
/** Every so many values of the trace: 20 ms apart a leap is still seen as one. */
const EVERY = 2;
const rounded = (value: number) => Math.round(value * 100) / 100;

/** One pass through a change, so that passes of months can be laid over each other at it. */
export interface Crossing extends Pick<Vote, 'takeId' | 'timeS' | 'midi' | 'direction' | 'kind'> {
  /** Seconds between values; the first is `ASIDE_S` before the change, the last as long after it. */
  hopS: number;
  /** MIDI with fractions; 0 where nobody sings, and beyond the take's ends. */
  pitch: number[];
  /** Timbre scores, as in the trace. */
  head: number[];
}

/** What a take's trace holds around a change that was heard in it. */
export function crossingIn(trace: Trace, { takeId, timeS, midi, direction, kind }: Vote): Crossing {
  const aside = Math.round(ASIDE_S / trace.hopS / EVERY);
  const middle = Math.round(timeS / trace.hopS);
  const places = Array.from({ length: 2 * aside + 1 }, (_, i) => middle + (i - aside) * EVERY);
  const of = (values: readonly number[]) => places.map((i) => rounded(values[i] ?? 0));
  return { takeId, timeS, midi, direction, kind, hopS: trace.hopS * EVERY, pitch: of(trace.midi), head: of(trace.head) };
}
