import { humLines, notch } from './hum';
import { gaussian, seededRandom } from './stats';

const RATE = 16000;
const sum = (seconds: number, parts: [number, number][], noise = 1e-4) => {
  const normal = gaussian(seededRandom(5));
  return Float32Array.from({ length: seconds * RATE }, (_, i) =>
    parts.reduce((s, [hz, a]) => s + a * Math.sin((2 * Math.PI * hz * i) / RATE), noise * normal()),
  );
};
const rms = (x: Float32Array) => Math.sqrt(x.reduce((s, v) => s + v * v, 0) / x.length);

test('hum of either mains is found line by line; noise, rumble and a held note are none', () => {
  expect(
    humLines(
      sum(1, [
        [50, 0.01],
        [150, 0.004],
      ]),
      RATE,
      1e-8,
    ),
  ).toEqual([50, 150]);
  expect(
    humLines(
      sum(0.4, [
        [60, 0.01],
        [120, 0.006],
        [180, 0.003],
      ]),
      RATE,
      1e-8,
    ),
  ).toEqual([60, 120, 180]);
  expect(humLines(sum(1, [], 0.01), RATE, 1e-5)).toEqual([]);
  expect(
    humLines(
      sum(1, [
        [73, 0.01],
        [220, 0.1],
      ]),
      RATE,
      1e-5,
    ),
  ).toEqual([]);
  // Too short to tell.
  expect(humLines(sum(0.1, [[50, 0.1]]), RATE, 1e-8)).toEqual([]);
});

test('a notch takes its line out and leaves a tone a semitone away as it was', () => {
  const hum = sum(1, [[150, 0.1]], 0);
  notch(hum, RATE, [150]);
  expect(rms(hum.subarray(8000))).toBeLessThan(1e-3);
  // From the first sample on: a filter that has yet to settle leaves 70 ms of hum.
  expect(rms(hum.subarray(0, 1000))).toBeLessThan(2e-3);
  const tone = sum(1, [[150 * 2 ** (1 / 12), 0.1]], 0);
  const before = rms(tone.subarray(8000));
  notch(tone, RATE, [150]);
  expect(Math.abs(20 * Math.log10(rms(tone.subarray(8000)) / before))).toBeLessThan(1);
});
