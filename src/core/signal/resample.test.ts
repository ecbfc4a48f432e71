import { createResampler, resample } from './resample';
import { seededRandom } from './stats';

const sine = (hz: number, rate: number, seconds: number) =>
  Float32Array.from({ length: Math.round(rate * seconds) }, (_, i) => Math.sin((2 * Math.PI * hz * i) / rate));

test.each([8000, 11025, 22050, 44100, 48000, 96000, 192000])('%i Hz to 16 kHz keeps a tone in place, to a thousandth', (rate) => {
  const out = resample(sine(997, rate, 0.5), rate, 16000);
  expect(out.length).toBe(Math.ceil((Math.round(rate * 0.5) * 16000) / rate));
  for (let i = 400; i < 7000; i++) expect(Math.abs(out[i] - Math.sin((2 * Math.PI * 997 * i) / 16000))).toBeLessThan(2e-3);
});

test('what lies over the new Nyquist does not fold down', () => {
  const out = resample(sine(9500, 44100, 0.3), 44100, 16000).subarray(400, 4000);
  expect(Math.max(...out.map(Math.abs))).toBeLessThan(10 ** (-50 / 20));
});

test('a constant stays a constant, whatever the phase', () => {
  const out = resample(new Float32Array(9000).fill(1), 44100, 16000).subarray(100, 3000);
  for (const v of out) expect(Math.abs(v - 1)).toBeLessThan(1e-5);
});

test('blocks of any size give the same as the whole', () => {
  const random = seededRandom(3);
  const input = Float32Array.from({ length: 30000 }, () => random() - 0.5);
  const whole = resample(input, 44100, 16000);
  const resampler = createResampler(44100, 16000);
  const parts: number[] = [];
  for (let at = 0; at < input.length;) {
    const n = 1 + Math.floor(random() * 3000);
    parts.push(...resampler.push(input.subarray(at, at + n)));
    at += n;
  }
  parts.push(...resampler.flush());
  expect(parts.length).toBe(whole.length);
  parts.forEach((v, i) => expect(v).toBe(whole[i]));
});
