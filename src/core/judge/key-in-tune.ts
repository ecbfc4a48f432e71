import { KeyInTime, targetCurve } from '../exercise/render';
import { nearestOctave } from '../music/pitch';
import { HOP_S } from '../voice/types';

/** In tune is within a semitone's half of what is meant, for so much of what was sung (our choice: a tick beside the key, not a verdict). */
const NEAR_ST = 0.5;
const MOSTLY = 0.6;
/** Less than this tells nothing. */
const LEAST_FRAMES = 40;

/**
 * Whether a key was in tune as a whole, in whichever octave; null where too little of it was heard. Quick enough to be told between
 * two keys; the verdict is `judgeTake`'s.
 *
 * @param midi pitch of each frame of a take, 0 where nothing is sung
 * @param firstFrame the frame at which the key begins
 */
export function keyInTune(midi: ArrayLike<number>, firstFrame: number, key: Pick<KeyInTime, 'notes'>): boolean | null {
  let heard = 0;
  let near = 0;
  for (const run of targetCurve(key))
    for (let i = 1; i < run.length; i++) {
      const [a, b] = [run[i - 1], run[i]];
      for (let s = a.timeS; s < b.timeS; s += HOP_S) {
        const sung = midi[firstFrame + Math.round(s / HOP_S)];
        if (!(sung > 0)) continue;
        const meant = a.midi + ((b.midi - a.midi) * (s - a.timeS)) / (b.timeS - a.timeS);
        heard++;
        if (Math.abs(nearestOctave(sung, meant) - meant) <= NEAR_ST) near++;
      }
    }
  return heard < LEAST_FRAMES ? null : near / heard >= MOSTLY;
}
