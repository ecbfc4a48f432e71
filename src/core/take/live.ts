import { createLiveTracker } from '../voice/live';
import { createLiveTimbre, TimbreAxis } from './timbre';

/** What the live view is told of a moment: hertz (0 where nobody sings), level dB, timbre score (NaN where unknown). */
export interface LiveMoment {
  hz: number;
  levelDb: number;
  head: number;
}

/** Hear takes as they are sung. What is known of the vowel's filter stays from take to take until `vowel` changes. */
export function createLiveEar(sampleRate: number) {
  let tracker = createLiveTracker(sampleRate);
  let timbre = createLiveTimbre(null);
  let vowelNow: string | undefined;
  return {
    /** A new take begins. */
    begin(vowel: string, axis: TimbreAxis | null) {
      tracker = createLiveTracker(sampleRate);
      if (vowel !== vowelNow) timbre = createLiveTimbre(axis);
      vowelNow = vowel;
    },
    push: (block: Float32Array): LiveMoment[] =>
      tracker.push(block).map(({ hz, levelDb, harmonicsDb, floorDb }) => ({
        hz,
        levelDb,
        head: harmonicsDb ? timbre({ f0: Float32Array.of(hz), harmonicsDb, floorDb }) : NaN,
      })),
  };
}
