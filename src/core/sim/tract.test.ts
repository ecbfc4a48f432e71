import { typicalProfile } from './typical';
import { sing } from './sing';
import { FORMANTS, Vowel } from './tract';
import { resample } from '../signal/resample';

/** All-pole fit by the autocorrelation method (Levinson-Durbin, textbook), and the peaks of its envelope in hertz. */
function envelopePeaks(x: Float32Array, rate: number, order: number): number[] {
  const w = Float64Array.from(x, (v, i) => (v - 0.97 * (x[i - 1] ?? 0)) * (0.54 - 0.46 * Math.cos((2 * Math.PI * i) / x.length)));
  const r = Array.from({ length: order + 1 }, (_, lag) => w.reduce((s, v, i) => s + v * (w[i + lag] ?? 0), 0));
  let a = [1];
  let error = r[0];
  for (let m = 1; m <= order; m++) {
    let sum = 0;
    for (let i = 0; i < m; i++) sum += a[i] * r[m - i];
    const k = -sum / error;
    const b = [...a, 0];
    a = b.map((v, i) => v + k * b[m - i]);
    error *= 1 - k * k;
  }
  const gain = (hz: number) => {
    let re = 0;
    let im = 0;
    a.forEach((v, i) => {
      re += v * Math.cos((2 * Math.PI * hz * i) / rate);
      im -= v * Math.sin((2 * Math.PI * hz * i) / rate);
    });
    return 1 / (re * re + im * im);
  };
  const peaks: number[] = [];
  for (let hz = 150; hz < 3900; hz += 5) if (gain(hz) > gain(hz - 5) && gain(hz) >= gain(hz + 5)) peaks.push(hz);
  return peaks;
}

// Averages of Peterson & Barney 1952, from memory; a low voice, so that harmonics sample the envelope closely.
// The fit can't part the first two of "ah": there the first and third are looked at.
test.each<[Vowel, number[]]>([
  ['ah', [0, 2]],
  ['eh', [0, 1, 2]],
  ['ee', [0, 1, 2]],
])('formants of a sung "%s" lie where men\'s averages do', (vowel, numbers) => {
  const profile = { ...typicalProfile('bass', 'blend'), lowMidi: 36, breathiness: 0, vibrato: { rateHz: 5, cents: 0 } };
  const { pcm } = sing(profile, { kind: 'sustain', midi: 38, seconds: 1 }, { seed: 2, vowel, snrDb: 80 });
  const x = resample(pcm.samples, pcm.sampleRate, 10000);
  const peaks = envelopePeaks(x.slice(6000, 10000), 10000, 12);
  for (const formant of numbers.map((n) => FORMANTS.man[vowel][n])) {
    const nearest = peaks.reduce((best, p) => (Math.abs(p - formant) < Math.abs(best - formant) ? p : best));
    expect(Math.abs(nearest / formant - 1)).toBeLessThan(0.12);
  }
});

test('the same seed sings the same samples, another seed does not, and nothing is louder than full scale', () => {
  const profile = typicalProfile('mezzo', 'flip');
  const once = (seed: number) => sing(profile, { kind: 'siren', legS: 1.5 }, { seed }).pcm.samples;
  const a = once(5);
  // Buffers, for a failure over so many samples takes minutes to print.
  const same = (b: Float32Array) => Buffer.from(a.buffer).equals(Buffer.from(b.buffer));
  expect(same(once(5))).toBe(true);
  expect(same(once(6))).toBe(false);
  expect(a.every((v) => Math.abs(v) < 1)).toBe(true);
});

test('a high voice is band-limited: no partial folds down below its fundamental', () => {
  const profile = { ...typicalProfile('soprano', 'blend'), highMidi: 96, breathiness: 0, vibrato: { rateHz: 5, cents: 0 } };
  const { pcm } = sing(profile, { kind: 'sustain', midi: 95, seconds: 0.6 }, { seed: 1, sampleRate: 16000, snrDb: 120 });
  // Energy under 1 kHz against the whole: one Goertzel sum every 50 Hz.
  const x = pcm.samples.subarray(5000, 9096);
  const power = (hz: number) => {
    let re = 0;
    let im = 0;
    x.forEach((v, i) => {
      const hann = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / x.length);
      re += v * hann * Math.cos((2 * Math.PI * hz * i) / 16000);
      im += v * hann * Math.sin((2 * Math.PI * hz * i) / 16000);
    });
    return re * re + im * im;
  };
  let below = 0;
  for (let hz = 100; hz < 1500; hz += 25) below = Math.max(below, power(hz));
  expect(10 * Math.log10(below / power(1975))).toBeLessThan(-45);
});
