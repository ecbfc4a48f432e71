import { liftSubharmonics, octavesUp } from './octaves';
import { HARMONICS, NO_HARMONIC_DB } from './types';

const track = (...pieces: [frames: number, hz: number][]) =>
  Float32Array.from(pieces.flatMap(([frames, hz]) => Array<number>(frames).fill(hz)));
const lifted = (...pieces: [number, number][]) => {
  const f0 = track(...pieces);
  liftSubharmonics(f0);
  return f0;
};

describe('a creak', () => {
  test('an octave under what it joins is lifted to it, before it or after it, over a short pause as well', () => {
    expect(lifted([100, 220], [20, 110])).toEqual(track([120, 220]));
    expect(lifted([20, 110], [100, 220])).toEqual(track([120, 220]));
    expect(lifted([100, 220], [8, 0], [20, 110])).toEqual(track([100, 220], [8, 0], [20, 220]));
  });

  test('a twelfth under both its neighbours is lifted by a twelfth, under one of them not', () => {
    expect(lifted([100, 330], [20, 110], [100, 330])).toEqual(track([220, 330]));
    expect(lifted([100, 330], [20, 110])).toEqual(track([100, 330], [20, 110]));
  });

  test('what is long, far away, or no octave is sung that low', () => {
    for (const pieces of [
      [
        [100, 220],
        [60, 110],
      ],
      [
        [100, 220],
        [20, 0],
        [20, 110],
      ],
      [
        [100, 220],
        [20, 130],
      ],
      [
        [100, 220],
        [20, 440],
      ],
      [[20, 110]],
    ] as [number, number][][])
      expect(lifted(...pieces)).toEqual(track(...pieces));
  });
});

/** Harmonics of so many frames, each as loud as `db` says (NaN: not seen). */
const harmonics = (frames: number, db: (k: number) => number) =>
  Float32Array.from({ length: frames * HARMONICS }, (_, i) => {
    const level = db((i % HARMONICS) + 1);
    return Number.isNaN(level) ? NO_HARMONIC_DB : level;
  });

describe('a pitch found an octave too low', () => {
  const FRAMES = 80;
  const f0 = track([FRAMES, 110]);
  const up = (db: (k: number) => number, frames = FRAMES) => octavesUp(f0.slice(0, frames), harmonics(frames, db))[10];

  test('is the octave where only even harmonics sound, or they stand well over the odd ones', () => {
    expect(up((k) => (k % 2 ? NaN : -20 - k))).toBe(220);
    expect(up((k) => -20 - k + (k % 2 ? -4 : 4))).toBe(220);
  });

  test('stays where harmonics fall evenly, a formant lifts a few, or odd ones are as loud', () => {
    expect(up((k) => -20 - 2 * k)).toBe(0);
    expect(up((k) => -20 - 2 * k + (k === 4 || k === 6 ? 12 : 0))).toBe(0);
    expect(up((k) => -20 - k + (k % 2 ? 4 : -4))).toBe(0);
    // A flutist's or a clarinet's odd ones are no octave.
    expect(up((k) => (k % 2 ? -20 - k : NaN))).toBe(0);
  });

  test('too short a stretch, or too few harmonics, tell nothing', () => {
    expect(up((k) => (k % 2 ? NaN : -20 - k), 50)).toBe(0);
    expect(up((k) => (k > 6 ? NaN : -20 - k + (k % 2 ? -4 : 4)))).toBe(0);
  });
});
