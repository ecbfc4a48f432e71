import { HOP_S, HARMONICS, VoiceTrack } from '../voice/types';
import { midiToHz } from '../music/pitch';
import { contourOf } from './contour';
import { sirenEvents } from './events';
import type { CrossOver, Leg } from './types';

const SECONDS = 3;
const LOW = 50;
const ST_PER_S = 6;

/** A slide up of 6 semitones a second with what is done to pitch (0: nobody sings) and level on the way: constructed, not heard. */
function slide(pitch: (midi: number, timeS: number) => number, levelDb: (timeS: number) => number = () => -20): VoiceTrack {
  const frames = SECONDS / HOP_S;
  const at = (i: number) => pitch(LOW + ST_PER_S * i * HOP_S, i * HOP_S);
  return {
    frames,
    f0: Float32Array.from({ length: frames }, (_, i) => (at(i) > 0 ? midiToHz(at(i)) : 0)),
    clarity: new Float32Array(frames).fill(0.95),
    levelDb: Float32Array.from({ length: frames }, (_, i) => levelDb(i * HOP_S)),
    harmonicsDb: new Float32Array(frames * HARMONICS),
    clippedShare: 0,
    floorDb: -70,
  };
}
const hear = (track: VoiceTrack, crossOvers: CrossOver[] = []) => {
  const leg: Leg = { startS: 0, endS: SECONDS, direction: 'up', lowestMidi: LOW, highestMidi: LOW + ST_PER_S * SECONDS, crossOvers };
  return sirenEvents(track, contourOf(track), [leg]);
};
const hole = (atS: number, deepDb: number) => (t: number) => -20 - deepDb * Math.exp(-(((t - atS) / 0.025) ** 2));

test('a leap along the way is a flip, where it is and by what it leaps over; under a semitone it is none', () => {
  for (const by of [1.5, 3, 7]) {
    const [flip, ...more] = hear(slide((m, t) => (t < 1.5 ? m : m + by)));
    expect(more).toEqual([]);
    expect(flip).toMatchObject({ kind: 'flip', direction: 'up' });
    expect(Math.abs(flip.timeS - 1.5)).toBeLessThan(0.02);
    expect(flip.toMidi - flip.fromMidi).toBeCloseTo(by, 0);
    expect(flip.midi).toBeCloseTo(LOW + ST_PER_S * 1.5 + by / 2, 0);
  }
  expect(hear(slide((m, t) => (t < 1.5 ? m : m + 0.6)))).toEqual([]);
});

test('a leap over a short silence is still one; over a breath it is none', () => {
  const silent = (forS: number) => slide((m, t) => (t < 1.5 ? m : t < 1.5 + forS ? 0 : m + 4));
  expect(hear(silent(0.1)).map((e) => e.kind)).toEqual(['flip']);
  expect(hear(silent(0.4))).toEqual([]);
});

test('a leap that falls back is one crack, and so is a leap against the way', () => {
  const cracked = hear(slide((m, t) => (t > 1.5 && t < 1.65 ? m + 5 : m)));
  expect(cracked.map((e) => e.kind)).toEqual(['crack']);
  expect(hear(slide((m, t) => (t < 1.5 ? m : m - 4))).map((e) => e.kind)).toEqual(['crack']);
});

test('vibrato, and a slide as fast as sirens go, are no leaps', () => {
  expect(hear(slide((m, t) => m + 0.8 * Math.sin(2 * Math.PI * 5.5 * t)))).toEqual([]);
  const fast = slide((_, t) => 45 + 24 * Math.min(1, t));
  expect(hear(fast)).toEqual([]);
});

test('a deep hole in the level is a dip by itself, a shallow one only inside a crossing of colour', () => {
  const steady = (m: number) => m;
  const crossing = { timeS: 1.5, midi: LOW + ST_PER_S * 1.5, widthSt: 5, confidence: 0.6 };
  expect(hear(slide(steady, hole(1.5, 10))).map((e) => e.kind)).toEqual(['dip']);
  expect(hear(slide(steady, hole(1.5, 4)))).toEqual([]);
  const [step] = hear(slide(steady, hole(1.5, 4)), [crossing]);
  expect(step.kind).toBe('timbre');
  expect(step.midi).toBeCloseTo(crossing.midi, 0);
  // One of many alike tells nothing.
  const trembling = (t: number) => -20 - 4 * Math.max(0, Math.sin(2 * Math.PI * 3 * t)) ** 8;
  expect(hear(slide(steady, trembling), [crossing])).toEqual([]);
  // Narrow, it is a step of colour without any hole; wide, it is a blend and no event.
  expect(hear(slide(steady), [{ ...crossing, widthSt: 1.5 }]).map((e) => e.kind)).toEqual(['timbre']);
  expect(hear(slide(steady), [{ ...crossing, widthSt: 6 }])).toEqual([]);
});

test('what falls into one moment is one event', () => {
  const crossing = { timeS: 1.52, midi: LOW + ST_PER_S * 1.5, widthSt: 1.5, confidence: 0.9 };
  const all = hear(
    slide((m, t) => (t < 1.5 ? m : m + 3), hole(1.5, 9)),
    [crossing],
  );
  expect(all.map((e) => e.kind)).toEqual(['flip']);
});
