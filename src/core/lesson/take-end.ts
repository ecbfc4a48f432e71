import { HOP_S } from '../voice/types';
import { hasPattern, patternS } from './pattern';
import { Ask } from './types';

/** A siren, a spoken row and a held note are over after so much quiet; between words and in a breath it is shorter. */
const QUIET_S = { siren: 1, scale: 0.9, sustain: 0.9, speech: 1.6, free: Infinity };
/** Least singing before a quiet can end a take. */
const LEAST_S = { siren: 1.2, scale: 0.8, sustain: 0.8, speech: 2, free: Infinity };
/** Nearly all of an exercise is over after less: the verdict is waited for. */
const QUIET_AFTER_ALL_S = 0.55;
const NEARLY_ALL = 0.8;
/** Of a pattern's own length this much must have been sung. */
const LEAST_SHARE = 0.5;

/**
 * Hears when what was asked for is over, from live frames: enough singing, then quiet, so that nobody need press stop.
 * A free take never ends by itself. `push` answers whether it is over.
 */
export function createTakeEnd(ask: Ask): { push(frames: readonly { hz: number }[]): boolean } {
  // A pattern ends as a scale does, whatever it is taken for.
  const task = ask.step.task === 'free' && hasPattern(ask.step) ? 'scale' : ask.step.task;
  const least = Math.max(LEAST_S[task], task === 'scale' ? LEAST_SHARE * patternS(ask.step) : 0);
  const nearlyAll = ask.step.exercise ? NEARLY_ALL * patternS(ask.step) : Infinity;
  let sung = 0;
  let quiet = 0;
  return {
    push(frames) {
      for (const { hz } of frames) {
        if (hz > 0) {
          sung += HOP_S;
          quiet = 0;
        } else quiet += HOP_S;
      }
      return sung >= least && quiet >= (sung >= nearlyAll ? Math.min(QUIET_AFTER_ALL_S, QUIET_S[task]) : QUIET_S[task]);
    },
  };
}
