import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { copySamples, floats, forget, fourTransforms, LANES, place, reserve } from './kernel';
import { realFft } from './fft';
import { seededRandom } from './stats';

/** The definition itself, in double precision. */
function slowPower(x: number[], bin: number): number {
  let re = 0;
  let im = 0;
  x.forEach((v, n) => {
    re += v * Math.cos((2 * Math.PI * bin * n) / x.length);
    im -= v * Math.sin((2 * Math.PI * bin * n) / x.length);
  });
  return re * re + im * im;
}

describe.each([32, 64, 512, 1024, 2048])('four transforms of %i', (size) => {
  const random = seededRandom(size);
  const taper = Array.from({ length: size }, (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size));
  const signals = Array.from({ length: LANES }, () => Array.from({ length: size }, () => random() - 0.5));
  const plan = fourTransforms(size);
  const tapers = Array(LANES).fill(place(taper));
  const addresses = signals.map((s) => place(s));
  const windowed = signals.map((s) => s.map((v, i) => v * taper[i]));

  test('power spectra follow the definition, each lane its own', () => {
    const at = plan.powerSpectra(addresses, tapers) / 4;
    const got = floats().slice(at, at + LANES * (size / 2 + 1));
    for (let lane = 0; lane < LANES; lane++)
      for (const bin of [0, 1, 2, 3, size / 4, size / 4 + 1, size / 2 - 1, size / 2])
        expect(got[LANES * bin + lane] / size).toBeCloseTo(slowPower(windowed[lane], bin) / size, 4);
  });

  test.each([0.5, 0.75])('of a window that fills only %f of the transform the rest counts as zeros', (share) => {
    const length = share * size;
    const at = plan.powerSpectra(addresses, Array(LANES).fill(place(taper.map((v, i) => (i < length ? v : 0)))), length) / 4;
    const cut = windowed.map((x) => x.map((v, i) => (i < length ? v : 0)));
    for (let lane = 0; lane < LANES; lane++)
      for (const bin of [0, 1, size / 4 + 1, size / 2])
        expect(floats()[at + LANES * bin + lane] / size).toBeCloseTo(slowPower(cut[lane], bin) / size, 4);
  });

  test('autocorrelations are the sums of products over the circle', () => {
    plan.powerSpectra(addresses, tapers);
    const flat = place(Array(size / 2 + 1).fill(1));
    const at = plan.autocorrelations(12, flat, place(Array(13).fill(1))) / 4;
    const got = floats().slice(at, at + LANES * 13);
    windowed.forEach((x, lane) => {
      const sum = (lag: number) => x.reduce((s, v, i) => s + v * x[(i + lag) % size], 0);
      for (let lag = 1; lag <= 12; lag++) expect(got[LANES * lag + lane]).toBeCloseTo(sum(lag) / sum(0), 4);
    });
  });

  test('the plain JavaScript transform agrees', () => {
    const re = new Float64Array(size / 2 + 1);
    const im = new Float64Array(size / 2 + 1);
    realFft(size).forward(Float64Array.from(windowed[0]), re, im);
    for (const bin of [0, 1, 5, size / 2]) expect((re[bin] ** 2 + im[bin] ** 2) / size).toBeCloseTo(slowPower(windowed[0], bin) / size, 8);
    const back = new Float64Array(size);
    realFft(size).inverse(re, im, back);
    back.forEach((v, i) => expect(v).toBeCloseTo(windowed[0][i], 10));
  });
});

test('samples beyond either end of a signal are zeros', () => {
  const address = reserve(8);
  floats().fill(9, address / 4, address / 4 + 8);
  copySamples(Float32Array.of(1, 2, 3), -2, 8, address);
  expect([...floats().slice(address / 4, address / 4 + 8)]).toEqual([0, 0, 1, 2, 3, 0, 0, 0]);
});

test('the bytes in the repository are what the source compiles to', () => {
  const made = execFileSync(
    process.execPath,
    ['--input-type=module', '-e', "process.stdout.write(await (await import('./bin/lib/kernel.mjs')).compileKernel())"],
    { encoding: 'utf8' },
  );
  expect(readFileSync('src/core/signal/kernel-bytes.ts', 'utf8')).toBe(made);
});

test.each([1, 2, 3, 4])('the memory of a room over %i moments follows its recursion', (moments) => {
  const [rows, keep, feed, over, least] = [8, 0.7, 0.2, 1.4, 0.1];
  const random = seededRandom(moments);
  const power = Array.from({ length: rows * LANES }, () => random() ** 4);
  const [at, held, fed] = [place(power), place(Array(rows).fill(0.1)), place(Array(rows).fill(0.3))];
  const sums = reserve(2 * LANES * LANES);
  forget(rows, moments, at, held, fed, keep, feed, over, least, sums);
  const data = floats();
  const total = (part: number) => data.slice(sums / 4 + LANES * part, sums / 4 + LANES * (part + 1)).reduce((a, b) => a + b, 0);
  const [all, remembered] = [Array(LANES).fill(0), Array(LANES).fill(0)];
  for (let row = 0; row < rows; row++) {
    let [h, f] = [0.1, 0.3];
    for (let lane = 0; lane < LANES; lane++) {
      const p = power[LANES * row + lane];
      if (lane < moments) {
        h = keep * h + feed * f;
        f = Math.max(0, p - h);
        all[lane] += p;
        remembered[lane] += h;
      }
      expect(data[at / 4 + LANES * row + lane]).toBeCloseTo(lane < moments ? Math.max(p - over * h, least * p) : p, 5);
    }
    expect(data[held / 4 + row]).toBeCloseTo(h, 5);
    expect(data[fed / 4 + row]).toBeCloseTo(f, 5);
  }
  for (let lane = 0; lane < LANES; lane++) {
    expect(total(2 * lane)).toBeCloseTo(all[lane], 4);
    expect(total(2 * lane + 1)).toBeCloseTo(remembered[lane], 4);
  }
});
