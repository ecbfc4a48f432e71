import fc from 'fast-check';
import { Biquad, filter, highPassAt, notchAt } from './biquad';

const RATE = 44_100;

/** |H| at a frequency, by the z-transform of the section: what a textbook writes, not what `filter` does. */
function gainAt({ b0, b1, b2, a1, a2 }: Biquad, hz: number): number {
  const w = (2 * Math.PI * hz) / RATE;
  const size = (c0: number, c1: number, c2: number) =>
    Math.hypot(c0 + c1 * Math.cos(w) + c2 * Math.cos(2 * w), c1 * Math.sin(w) + c2 * Math.sin(2 * w));
  return size(b0, b1, b2) / size(1, a1, a2);
}

/** Gain of a sine that is filtered, once it has swung in. */
function gainOfSine(section: Biquad, hz: number): number {
  const sine = Float32Array.from({ length: RATE }, (_, i) => Math.sin((2 * Math.PI * hz * i) / RATE));
  const out = new Float32Array(RATE);
  filter(section, sine, out);
  const rms = (x: Float32Array) => Math.sqrt(x.slice(RATE / 2).reduce((s, v) => s + v * v, 0) / (RATE / 2));
  return rms(out) / rms(sine);
}

const db = (gain: number) => 20 * Math.log10(gain);

// Oppenheim and Schafer, Discrete-Time Signal Processing: a Butterworth of order n by the bilinear transform has
// |H|² = 1 / (1 + (tan(wc/2) / tan(w/2))^2n) as a high-pass.
test.each([40, 80, 1000])('a high-pass at %d Hz is a Butterworth of the second order', (cornerHz) => {
  const section = highPassAt(cornerHz, RATE);
  for (const hz of [cornerHz / 8, cornerHz / 2, cornerHz, 3 * cornerHz, 9 * cornerHz]) {
    const ratio = Math.tan((Math.PI * cornerHz) / RATE) / Math.tan((Math.PI * hz) / RATE);
    const expected = 1 / Math.sqrt(1 + ratio ** 4);
    expect(gainAt(section, hz)).toBeCloseTo(expected, 9);
    expect(Math.abs(db(gainOfSine(section, hz)) - db(expected))).toBeLessThan(0.1);
  }
  expect(db(gainAt(section, cornerHz))).toBeCloseTo(-3.0103, 3);
  // 12 dB an octave under it.
  expect(db(gainAt(section, cornerHz / 8)) - db(gainAt(section, cornerHz / 16))).toBeCloseTo(12.04, 1);
});

test.each([
  [50, 10],
  [60, 30],
  [1000, 2],
])('a notch at %d Hz of Q %d takes that frequency out, a band of hz / Q by 3 dB, and leaves the rest', (hz, q) => {
  const section = notchAt(hz, RATE, q);
  expect(gainAt(section, hz)).toBeLessThan(1e-9);
  expect(gainAt(section, 0)).toBeCloseTo(1, 9);
  expect(gainAt(section, RATE / 2)).toBeCloseTo(1, 9);
  // Edges lie at f (√(1 + 1/4Q²) ± 1/2Q), where the corner frequency isn't bent yet.
  for (const side of [-1, 1]) {
    const edge = hz * (Math.sqrt(1 + 1 / (4 * q * q)) + side / (2 * q));
    expect(db(gainAt(section, edge))).toBeCloseTo(-3.01, 1);
  }
});

test('what is filtered in pieces, or into itself, is what is filtered at once', () => {
  fc.assert(
    fc.property(fc.float32Array({ minLength: 1, maxLength: 300, min: -1, max: 1, noNaN: true }), fc.nat(300), (sound, cut) => {
      const section = highPassAt(300, RATE);
      const whole = new Float32Array(sound.length);
      filter(section, sound, whole);
      const state = new Float64Array(2);
      const pieces = sound.slice();
      for (const piece of [pieces.subarray(0, cut), pieces.subarray(cut)]) filter(section, piece, piece, state);
      expect(pieces).toEqual(whole);
    }),
  );
});
