import { additiveTone } from '../sim/tones';
import { median } from '../signal/stats';
import { trackVoice } from './track';
import { HARMONICS, VoiceTrack } from './types';

/** Median over the steady middle of a tone. */
function middle(track: VoiceTrack, value: (frame: number) => number): number {
  const voiced = [...track.f0.keys()].filter((i) => track.f0[i] > 0);
  return median(voiced.slice(voiced.length >> 2, (3 * voiced.length) >> 2).map(value));
}

const harmonic = (track: VoiceTrack, k: number) => middle(track, (i) => track.harmonicsDb[i * HARMONICS + k - 1]);

// A sinusoid of amplitude A has a level of 20 log10 A (textbook): H1 - H2 of given amplitudes is known to the hundredth.
test.each([
  [100, 1, 0.5, 6.02],
  [220, 1, 1, 0],
  [220, 0.1, 1, -20],
  [440, 1, 0.05, 26.02],
  [880, 0.5, 0.5, 0],
])('H1 - H2 of a tone at %i Hz with amplitudes %f and %f is %f dB', (hz, first, second, known) => {
  const track = trackVoice(
    additiveTone({ seconds: 1, hz: () => hz, amplitude: (k) => (k === 1 ? first : k === 2 ? second : 0.3 / k), snrDb: 60 }),
  );
  expect(Math.abs(harmonic(track, 1) - harmonic(track, 2) - known)).toBeLessThan(0.3);
});

test('levels are decibels of amplitude against full scale', () => {
  const track = trackVoice(additiveTone({ seconds: 1, hz: () => 300, amplitude: (k) => (k === 1 ? 1 : 0.5), snrDb: 60 }));
  // The generator makes everything 0.2 times as large.
  expect(harmonic(track, 1)).toBeCloseTo(20 * Math.log10(0.2), 0);
});

// Harmonics-to-noise ratio is 10 log10 (r / (1 - r)) of the normalised autocorrelation r at one period (Boersma 1993). The
// noise here is white up to 4 kHz and the tracker weighs the band above 2 kHz down, so its ratio lies a little higher.
test('harmonics-to-noise follows the noise put in, decibel for decibel', () => {
  const hnr = (snrDb: number) => {
    const amplitude = (k: number) => (k <= 6 ? 1 : 0);
    const track = trackVoice(additiveTone({ seconds: 1.5, hz: () => 200, sampleRate: 8000, amplitude, snrDb }));
    return middle(track, (i) => 10 * Math.log10(track.clarity[i] / (1 - track.clarity[i])));
  };
  const [ten, twenty] = [hnr(10), hnr(20)];
  expect(Math.abs(ten - 11.4)).toBeLessThan(1.5);
  expect(Math.abs(twenty - ten - 10)).toBeLessThan(1.5);
});

test('a steady tone is measured to half a cent', () => {
  for (const hz of [61.7, 110, 233.1, 466.2, 987.8, 2093]) {
    const track = trackVoice(additiveTone({ seconds: 1, hz: () => hz, snrDb: 70 }));
    expect(Math.abs(1200 * Math.log2(middle(track, (i) => track.f0[i]) / hz))).toBeLessThan(0.5);
  }
});
