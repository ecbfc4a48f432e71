import { convolve, decayingNoise } from '../sim/room';
import { additiveTone } from '../sim/tones';
import { estimateRoom } from './room';
import { resample } from '../signal/resample';
import { trackVoice } from './track';
import { ANALYSIS_RATE, HOP_S, Pcm } from './types';

const RATE = 16000;
const REST_S = 0.3;

/** Three notes with silences after each, in a room of so many seconds (none: null), reflections 10 dB under the direct sound. */
function notes(reverbS: number | null): Pcm {
  const loud = (t: number) => (t % 1.2 < 0.6 ? 1 : 0);
  const pcm = additiveTone({
    seconds: 3.6,
    sampleRate: RATE,
    hz: (t) => [220, 262, 330][Math.floor(t / 1.2)] ?? 330,
    gain: loud,
    snrDb: 55,
  });
  if (reverbS !== null) pcm.samples = convolve(pcm.samples, decayingNoise(reverbS, 10, RATE));
  return pcm;
}

const heard = (pcm: Pcm) => estimateRoom(resample(pcm.samples, pcm.sampleRate, ANALYSIS_RATE / 2));

// A shorter one looks longer: notes that end show few decays, and hardly longer ones than the window.
test.each([0.5, 0.9])('a room of %f s is known from where notes end', (reverbS) => {
  const room = heard(notes(reverbS))!;
  expect(room.reverbS).toBeGreaterThan(0.65 * reverbS);
  expect(room.reverbS).toBeLessThan(1.5 * reverbS);
});

test.each([
  [0.4, 15],
  [0.4, 5],
  [0.8, 10],
  [0.8, 0],
])('a room of %f s with direct sound %i dB over the reflected is known from a glide', (reverbS, directDb) => {
  const pcm = additiveTone({ seconds: 5, sampleRate: RATE, hz: (t) => 160 * 2 ** (2 * Math.sin((Math.PI * t) / 5) ** 2), snrDb: 45 });
  const room = heard({ ...pcm, samples: convolve(pcm.samples, decayingNoise(reverbS, directDb, RATE)) })!;
  expect(room.reverbS).toBeGreaterThan(0.65 * reverbS);
  expect(room.reverbS).toBeLessThan(1.5 * reverbS);
  expect(Math.abs(10 * Math.log10(room.share) + directDb)).toBeLessThan(7);
});

test('without a room hardly any is made up', () => {
  const room = heard(notes(null));
  expect(room?.share ?? 0).toBeLessThan(0.06);
});

test('what a room holds of a note is no voice', () => {
  for (const reverbS of [0.3, 0.5]) {
    const { f0 } = trackVoice(notes(reverbS));
    let far = 0;
    let voiced = 0;
    for (let i = 0; i < f0.length; i++) {
      const t = i * HOP_S - REST_S;
      // A tenth of a second after each note and until the next.
      if (t < 0 || t > 3.6 || t % 1.2 < 0.7) continue;
      far++;
      if (f0[i] > 0) voiced++;
    }
    expect(voiced / far).toBeLessThan(0.08);
  }
});
