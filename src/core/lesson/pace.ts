import { HOP_S } from '../voice/types';

/** Over which the pace of a siren is judged. */
const LOOK_S = 0.7;
/** Slower than this low down runs the breath out; a long siren covers two octaves in about three seconds (common practice). */
const LINGER_ST_S = 1.5;
/** Faster than this through the change hides it. */
const RUSH_ST_S = 14;
const LOW_REACH_ST = 5;
const CHANGE_REACH_ST = 2.5;

export type Pace = 'lingers' | 'rushes' | null;

/**
 * Whether a siren under way lingers at the bottom or rushes its change, from its last moments: `midi` a value each HOP_S,
 * 0 unvoiced. `low` and `change` are the voice's own.
 */
export function paceOf(midi: readonly number[], low: number, change: number): Pace {
  const n = Math.round(LOOK_S / HOP_S);
  const from = midi.length - n;
  if (from < 0) return null;
  for (let i = from; i < midi.length; i++) if (!(midi[i] > 0)) return null;
  const first = midi[from];
  const last = midi[midi.length - 1];
  const speed = Math.abs(last - first) / LOOK_S;
  if (last < low + LOW_REACH_ST && speed < LINGER_ST_S) return 'lingers';
  const middle = midi[midi.length - (n >> 1)];
  return speed > RUSH_ST_S && Math.abs(middle - change) < CHANGE_REACH_ST ? 'rushes' : null;
}
