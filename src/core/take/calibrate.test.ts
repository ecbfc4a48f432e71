import { additiveTone } from '../sim/tones';
import { trackVoice } from '../voice/track';
import { VoiceTrack } from '../voice/types';
import { calibrate } from './calibrate';
import { Colour, COLOURS } from './types';
import { inEnglish } from '../format/say';

/** A held A3 of plain tones: harmonics fall by `slope` dB an octave, the first stands `first` dB over their line. */
const tone = (slope: number, first: number, hz = 220, seconds = 1.5): VoiceTrack =>
  trackVoice(
    additiveTone({
      seconds,
      hz: () => hz,
      amplitude: (k) => 10 ** ((-slope * Math.log2(k) + (k === 1 ? first : 0)) / 20),
      snrDb: 45,
    }),
  );
const four = (of: (i: number) => VoiceTrack) => Object.fromEntries(COLOURS.map((c, i) => [c, of(i)])) as Record<Colour, VoiceTrack>;

test('the axis is the direction in which the four differ: here slope alone, there the first harmonic alone', () => {
  const bySlope = calibrate(four((i) => tone(8 + 2 * i, 3)));
  const byFirst = calibrate(four((i) => tone(10, 2 + 3 * i)));
  if (!('axis' in bySlope) || !('axis' in byFirst)) throw new Error('no axis');
  // Chest to head spans 2.5 units: six decibels an octave of slope, nine decibels of first harmonic.
  expect(bySlope.axis.slope * 6).toBeCloseTo(2.5, 0);
  expect(bySlope.axis.first).toBeLessThan(0.15);
  expect(byFirst.axis.first * 9).toBeCloseTo(2.5, 0);
  expect(byFirst.axis.slope).toBeLessThan(0.15);
});

test.each([
  ['all alike', four(() => tone(10, 3)), /too alike/],
  ['on different notes', four((i) => tone(8 + 2 * i, 3, i === 3 ? 330 : 220)), /not on one note/],
  ['too short', four((i) => tone(8 + 2 * i, 3, 220, i === 1 ? 0.3 : 1.5)), /chest blend is too short/],
  ['the blends exchanged', four((i) => tone(8 + 2 * [0, 2, 1, 3][i], 3)), /sing the two again/],
])('four colours %s give no axis, and the reason', (_, takes, reason) => {
  const found = calibrate(takes);
  expect('reason' in found && inEnglish(found.reason)).toMatch(reason);
});
