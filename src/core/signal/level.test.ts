import { additiveTone } from '../sim/tones';
import { atDistance, aWeighting, createLevelMeter, gainAt, readCalibrator } from './level';

// IEC 61672-1:2013, table 3: A-weighting and the acceptance limits of class 1, dB (from memory). Above 10 kHz the limits are wide.
const TABLE: [hz: number, db: number, over: number, under: number][] = [
  [20, -50.5, 2, 2],
  [31.5, -39.4, 1.5, 1.5],
  [63, -26.2, 1, 1],
  [100, -19.1, 1, 1],
  [125, -16.1, 1, 1],
  [200, -10.9, 1, 1],
  [250, -8.6, 1, 1],
  [400, -4.8, 1, 1],
  [500, -3.2, 1, 1],
  [800, -0.8, 1, 1],
  [1000, 0, 0.7, 0.7],
  [1600, 1, 1, 1],
  [2000, 1.2, 1, 1],
  [2500, 1.3, 1, 1],
  [4000, 1, 1, 1],
  [5000, 0.5, 1.5, 1.5],
  [6300, -0.1, 1.5, 2],
  [8000, -1.1, 1.5, 2.5],
  [10000, -2.5, 2, 3],
  [12500, -4.3, 2, 5],
  [16000, -6.6, 2.5, 16],
];

test.each([44100, 48000, 96000])('A-weighting at %i Hz keeps within class 1 of IEC 61672-1', (rate) => {
  const sections = aWeighting(rate);
  for (const [hz, db, over, under] of TABLE) {
    const ours = 20 * Math.log10(sections.reduce((g, s) => g * gainAt(s, hz, rate), 1));
    expect({ hz, off: ours - db <= over && ours - db >= -under ? 0 : ours - db }).toEqual({ hz, off: 0 });
  }
});

const RATE = 44100;
const tone = (hz: number, amplitude: number, seconds = 2) =>
  Float32Array.from({ length: seconds * RATE }, (_, i) => amplitude * Math.sin((2 * Math.PI * hz * i) / RATE));
const readingOf = (samples: Float32Array) => {
  const meter = createLevelMeter(RATE);
  let last = 0;
  for (let at = 0; at + 1050 <= samples.length; at += 1050) last = meter(samples.subarray(at, at + 1050));
  return last;
};

test('the meter reads tones as the standard weighs them, and lets go at 34.7 dB a second', () => {
  expect(readingOf(tone(1000, 1))).toBeCloseTo(-3.01, 1);
  expect(readingOf(tone(125, 1)) - readingOf(tone(1000, 1))).toBeCloseTo(-16.1, 0);
  // F weighting: 10 log10(e) / 0.125 s (IEC 61672-1).
  const stopped = Float32Array.from([...tone(1000, 1), ...new Float32Array(RATE / 2)]);
  expect(readingOf(stopped) - readingOf(tone(1000, 1))).toBeCloseTo(-34.7 / 2, 0);
});

describe('a calibrator', () => {
  test('is read to a hundredth of a decibel, a little off pitch or under some noise too', () => {
    expect(readCalibrator(tone(1000, 0.1), RATE)).toEqual({ levelDb: expect.closeTo(-23.01, 2) });
    expect(readCalibrator(tone(1015, 0.1), RATE)).toEqual({ levelDb: expect.closeTo(-23.01, 2) });
  });
  test.each<[string, Float32Array, RegExp]>([
    ['silence', new Float32Array(2 * RATE), /No tone/],
    ['a clipped tone', tone(1000, 1.2).map((x) => Math.max(-1, Math.min(1, x))), /clipped/],
    ['another pitch', tone(440, 0.3), /not a plain tone/],
    ['a voice', additiveTone({ seconds: 2, hz: () => 250, restS: 0 }).samples, /not a plain tone/],
    ['a tone that comes loose', tone(1000, 0.1).map((x, i) => x * (i > RATE ? 0.8 : 1)), /not steady/],
  ])('%s is refused, with what to do', (_, samples, reason) => {
    expect(readCalibrator(samples, RATE)).toEqual({ reason: expect.stringMatching(reason) });
  });
  test('half the distance is 6 dB more', () => expect(atDistance(70, 30, 15)).toBeCloseTo(76.02, 2));
});
