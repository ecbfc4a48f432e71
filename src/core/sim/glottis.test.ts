import { PULSE_HARMONICS, PulseSpectrum, pulseSpectrum } from './glottis';

const spectrumOf = (rd: number): PulseSpectrum => {
  const out = { re: new Float64Array(PULSE_HARMONICS + 1), im: new Float64Array(PULSE_HARMONICS + 1) };
  pulseSpectrum(rd, out);
  return out;
};
const levelOf = ({ re, im }: PulseSpectrum, k: number) => 20 * Math.log10(Math.hypot(re[k], im[k]));
/** One period of the flow's derivative, back from its harmonics. */
const waveOf = ({ re, im }: PulseSpectrum, points = 1000) =>
  Array.from({ length: points }, (_, i) => {
    let sum = 0;
    for (let k = 1; k <= PULSE_HARMONICS; k++) {
      const w = (2 * Math.PI * k * i) / points;
      sum += 2 * (re[k] * Math.cos(w) - im[k] * Math.sin(w));
    }
    return sum;
  });
const RDS = [0.4, 0.7, 1, 1.3, 1.6, 1.9, 2.2, 2.5];

test.each(RDS)('at Rd %d the strongest moment is the closing, of unit strength', (rd) => {
  const wave = waveOf(spectrumOf(rd));
  const least = Math.min(...wave);
  expect(least).toBeLessThan(-0.8);
  expect(least).toBeGreaterThan(-1.15);
  expect(Math.max(...wave)).toBeLessThan(-least);
});

// Fant 1995 (from memory): the first harmonic over the second, dB, is about -7.6 + 11.1 Rd, from pressed to breathy.
test('the first harmonic stands over the second as published', () => {
  for (const rd of [0.6, 1, 1.4, 1.8, 2.2]) {
    const spectrum = spectrumOf(rd);
    expect(Math.abs(levelOf(spectrum, 1) - levelOf(spectrum, 2) - (-7.6 + 11.1 * rd))).toBeLessThan(3);
  }
});

test('the lighter, the more first harmonic and the less above', () => {
  const over = (a: number, b: number) => RDS.map((rd) => levelOf(spectrumOf(rd), a) - levelOf(spectrumOf(rd), b));
  for (const [a, b] of [
    [1, 2],
    [1, 10],
    [1, 40],
  ]) {
    const falls = over(a, b);
    expect([...falls].sort((x, y) => x - y)).toEqual(falls);
  }
});

test('between the shapes that are kept it is read in between, beyond them at the last one', () => {
  const [a, between, b] = [1, 1.05, 1.1].map(spectrumOf);
  for (const k of [1, 2, 7]) expect(between.re[k]).toBeCloseTo((a.re[k] + b.re[k]) / 2, 9);
  expect(spectrumOf(0.1).re).toEqual(spectrumOf(0.4).re);
  expect(spectrumOf(9).re).toEqual(spectrumOf(8).re);
});
