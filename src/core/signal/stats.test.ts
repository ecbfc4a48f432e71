import fc from 'fast-check';
import { cholesky, unwhiten, whiten } from './linear';
import { fitLine, gaussian, median, medianLine, quantile, residualMeanSquare, robustSpread, seededRandom, weightedMedian } from './stats';

test('quantiles, medians and lines by hand', () => {
  expect(quantile([4, 1, 3, 2], 0.5)).toBe(2.5);
  expect(quantile([10, 20, 30], 0.25)).toBe(15);
  expect(median([])).toBeNaN();
  expect(robustSpread([1, 1, 2, 2, 4, 6, 9])).toBeCloseTo(1.4826);
  expect(fitLine([0, 1, 2, 3], [1, 3, 5, 7])).toEqual({ slope: 2, intercept: 1 });
  expect(fitLine([5, 5], [1, 3])).toEqual({ slope: 0, intercept: 2 });
  expect(weightedMedian([1, 2, 3], [1, 1, 5])).toBe(3);
  expect(weightedMedian([1, 2], [1, 1])).toBe(1.5);
});

test('a weighted median with equal weights is the median', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 30 }), (values) => {
      expect(weightedMedian(values, Array(values.length).fill(1))).toBe(median(values));
    }),
  );
});

test('three points of ten that lie far off tilt least squares, not the line of median slopes', () => {
  const x = Array.from({ length: 10 }, (_, i) => i);
  const y = x.map((v, i) => 2 * v + 1 + (i >= 7 ? 40 : 0));
  expect(medianLine(x, y)).toEqual({ slope: 2, intercept: 1 });
  expect(fitLine(x, y).slope).toBeGreaterThan(5);
  expect(medianLine([3, 3], [1, 2])).toEqual({ slope: 0, intercept: 1.5 });
});

test('what is left of randomised complete blocks is as in the handbook', () => {
  // Montgomery, Design and Analysis of Experiments, vascular grafts: four pressures, six batches of resin, error mean square 7.33 (from memory).
  const grafts = [
    [90.3, 89.2, 98.2, 93.9, 87.4, 97.9],
    [92.5, 89.5, 90.6, 94.7, 87.0, 95.8],
    [85.5, 90.8, 89.6, 86.2, 88.0, 93.4],
    [82.5, 89.5, 85.6, 87.4, 78.9, 90.7],
  ];
  expect(residualMeanSquare(grafts)).toBeCloseTo(7.33, 2);
});

test('the generator repeats itself for a seed, and its normal deviates have mean 0 and spread 1', () => {
  const draw = (seed: number) => Array.from({ length: 5 }, seededRandom(seed));
  expect(draw(7)).toEqual(draw(7));
  expect(draw(7)).not.toEqual(draw(8));
  const values = Array.from({ length: 20000 }, gaussian(seededRandom(1)));
  const mean = values.reduce((a, b) => a + b) / values.length;
  expect(Math.abs(mean)).toBeLessThan(0.03);
  expect(Math.sqrt(values.reduce((s, v) => s + (v - mean) ** 2, 0) / values.length)).toBeCloseTo(1, 1);
});

test('equations: a known system, and one without a single answer', () => {
  // 4x + 2y = 10, 2x + 3y = 9.
  const factor = Float64Array.of(4, 2, 2, 3);
  cholesky(factor, 2);
  const x = unwhiten(factor, whiten(factor, Float64Array.of(10, 9), 2), 2);
  expect(x[0]).toBeCloseTo(1.5);
  expect(x[1]).toBeCloseTo(2);
  expect(() => cholesky(Float64Array.of(1, 1, 1, 1), 2)).toThrow(/no single answer/);
});
