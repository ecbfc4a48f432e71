import { seededRandom } from '../signal/stats';
import type { Pcm } from '../voice/types';
import { MICROPHONES, MicrophoneName, takenBy } from './microphone';

const RATE = 22_050;
const sine = (hz: number, seconds = 2): Pcm => ({
  samples: Float32Array.from({ length: seconds * RATE }, (_, i) => 0.1 * Math.sin((2 * Math.PI * hz * i) / RATE)),
  sampleRate: RATE,
});
const power = (samples: Float32Array) => samples.slice(RATE / 2).reduce((s, x) => s + x * x, 0) / (samples.length - RATE / 2);
const db = (ratio: number) => 10 * Math.log10(ratio);
const QUIET = { snrDb: 200, hum: null };
const taken = (name: MicrophoneName, pcm: Pcm, more: Parameters<typeof takenBy>[2] = QUIET) =>
  takenBy(name, pcm, more, seededRandom(1)).samples;
/** How loud a tone of some frequency lies in a sound, amplitude. */
function tone(samples: Float32Array, hz: number): number {
  let [re, im] = [0, 0];
  samples.forEach((x, i) => {
    re += x * Math.cos((2 * Math.PI * hz * i) / RATE);
    im += x * Math.sin((2 * Math.PI * hz * i) / RATE);
  });
  return (2 * Math.hypot(re, im)) / samples.length;
}

test.each(Object.keys(MICROPHONES) as MicrophoneName[])('a %s microphone begins where it says, and lifts what it says', (name) => {
  const { fromHz, liftDb, liftHz } = MICROPHONES[name];
  const gain = (hz: number) => db(power(taken(name, sine(hz))) / power(sine(hz).samples));
  expect(Math.abs(gain(fromHz) + 3)).toBeLessThan(0.5);
  expect(gain(fromHz / 2)).toBeLessThan(-11);
  expect(Math.abs(gain(liftHz) - liftDb)).toBeLessThan(0.3);
});

test.each([20, 40])('noise lies %d dB under the voice’s usual power, whatever is silent around it', (snrDb) => {
  const voice = sine(440, 4);
  // Sung for half of the time only.
  voice.samples.fill(0, 2 * RATE);
  const heard = taken('studio', voice, { snrDb, hum: null });
  const clean = taken('studio', voice);
  const noise = heard.map((x, i) => x - clean[i]);
  const sung = clean.slice(RATE / 2, 2 * RATE).reduce((s, x) => s + x * x, 0) / (1.5 * RATE);
  expect(Math.abs(db(sung / power(noise)) - snrDb)).toBeLessThan(0.5);
});

test('the noise of a room is dull: it falls by 6 dB an octave', () => {
  const voice = sine(440, 8);
  const clean = taken('studio', voice);
  const noise = taken('studio', voice, { snrDb: 20, hum: null }).map((x, i) => x - clean[i]);
  // First-order low-pass of 1,500 Hz: an octave and two above it are 7 and 12 dB down, counted as differences between neighbours.
  const around = (hz: number) => {
    let sum = 0;
    for (let k = -40; k <= 40; k += 4) sum += tone(noise, hz + k) ** 2;
    return sum;
  };
  const fall = db(around(250) / around(6000));
  expect(fall).toBeGreaterThan(9);
  expect(fall).toBeLessThan(16);
});

test('hum is the mains’ frequency and its harmonics, as far under the voice as asked', () => {
  const heard = taken('studio', sine(440), { snrDb: 200, hum: { hz: 50, underDb: 20 } });
  const usual = 0.1 / Math.SQRT2;
  for (const k of [1, 2, 3, 4, 5]) expect(Math.abs(tone(heard, 50 * k) - (0.1 * usual) / k)).toBeLessThan(2e-4);
  expect(tone(heard, 300)).toBeLessThan(2e-4);
});

test('what was given stays as it was, and the same chance gives the same sound', () => {
  const voice = sine(440);
  const before = voice.samples.slice();
  expect(taken('phone', voice, { snrDb: 20, hum: null })).toEqual(taken('phone', voice, { snrDb: 20, hum: null }));
  expect(voice.samples).toEqual(before);
});
