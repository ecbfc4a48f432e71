import type { Exercise } from './types';

/** What a sound does to the weight of whatever is sung on it (common practice, no source): what is bubbled takes off, what is open or bright adds. */
const SOUNDS: readonly [RegExp, -1 | 1][] = [
  [/straw|trill|hum|^(m|n|ng|v|z)$|breathy|yawned/, -1],
  [/nay|nyeh|neh|hey|yeah|yeh|twangy|^ya$|^la$|ah$/, 1],
];

/**
 * The weight of an exercise on one of its sounds: the pattern's own and the sound's together, -1 takes weight off, +1 adds it.
 *
 * @example weightOn({ weight: 0 }, 'ah') // 1
 */
export function weightOn({ weight }: Pick<Exercise, 'weight'>, sound: string): -1 | 0 | 1 {
  const ofSound = SOUNDS.find(([pattern]) => pattern.test(sound))?.[1] ?? 0;
  return Math.max(-1, Math.min(1, weight + ofSound)) as -1 | 0 | 1;
}
