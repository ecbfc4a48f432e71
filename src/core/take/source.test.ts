import { HARMONICS, NO_HARMONIC_DB, type VoiceTrack } from '../voice/types';
import { sourceOf } from './source';

const FRAMES = 120;
const AT = 60;

/** A note whose first `there` harmonics sound, with a hole of 6 dB, 30 ms long, in those named: constructed. */
function holeIn(holed: number[], there: number) {
  const harmonicsDb = new Float32Array(FRAMES * HARMONICS).fill(NO_HARMONIC_DB);
  for (let i = 0; i < FRAMES; i++)
    for (let k = 0; k < there; k++) harmonicsDb[i * HARMONICS + k] = -20 - 6 * k - (holed.includes(k) && Math.abs(i - AT) <= 3 ? 6 : 0);
  const track = {
    frames: FRAMES,
    f0: new Float32Array(FRAMES).fill(440),
    clarity: new Float32Array(FRAMES).fill(0.99),
    floorDb: -80,
    harmonicsDb,
  } as unknown as VoiceTrack;
  const flat = { db: new Float64Array(200), f1: 600 };
  return sourceOf(track, new Float64Array(FRAMES).fill(69), flat).stepAt(AT);
}

test('a hole is one that the whole series has: a room’s notch in one harmonic makes none, however few there are', () => {
  expect(holeIn([0, 1, 2, 3], 4)!.dipDb).toBeCloseTo(6);
  expect(holeIn([3], 4)!.dipDb).toBeCloseTo(0);
  expect(holeIn([1], 3)!.dipDb).toBeCloseTo(0);
  expect(holeIn([1], 2)!.dipDb).toBeCloseTo(0);
  expect(holeIn([0, 1], 2)!.dipDb).toBeCloseTo(6);
});

test('one harmonic alone tells nothing', () => {
  expect(holeIn([0], 1)).toBeNull();
});
