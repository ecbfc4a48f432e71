import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { mean, sampleVariance } from 'simple-statistics';
import { gaussian, seededRandom } from '../signal/stats';
import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import { analyseTake } from '../take/analyse';
import { realChange } from './change';
import { measuresByDay } from './measures';

const normal = gaussian(seededRandom(7));
const series = (n: number, drift: number) => Array.from({ length: n }, (_, i) => normal() + (drift * i) / (n - 1));
const share = (n: number, drift: number, of = 2000) => {
  let real = 0;
  for (let i = 0; i < of; i++) real += Number(realChange(series(n, drift))!.real);
  return real / of;
};

test('worked by hand: 0 0 0 2 2 2 moves by 2; its one step of 2 makes a scatter of sqrt(4/5/2)', () => {
  const c = realChange([0, 0, 0, 2, 2, 2])!;
  expect(c).toMatchObject({ first: 0, latest: 2, by: 2 });
  expect(c.scatter).toBeCloseTo(Math.sqrt(0.4), 10);
  // Three degrees of freedom: 3.182 (statistical tables).
  expect(c.least).toBeCloseTo(3.182 * Math.sqrt(0.4) * Math.sqrt(2 / 3), 6);
});

// Means by simple-statistics, Student's t by stdlib's quantile; the scatter by half the variance of two-by-two steps (von Neumann 1941).
test.each([4, 5, 8, 13, 30, 46, 60])('%i days: means, scatter and the least real change are what statistics libraries say', (n) => {
  const values = series(n, 1);
  const c = realChange(values)!;
  const end = Math.min(3, Math.floor(n / 2));
  expect(c.first).toBeCloseTo(mean(values.slice(0, end)), 10);
  expect(c.latest).toBeCloseTo(mean(values.slice(-end)), 10);
  const steps = values.slice(1).map((v, i) => v - values[i]);
  const squares = sampleVariance(steps) * ((n - 2) / (n - 1)) + mean(steps) ** 2;
  expect(c.scatter).toBeCloseTo(Math.sqrt(squares / 2), 10);
  const freedom = Math.max(1, Math.round(((n - 1) * 2) / 3));
  // Beyond 30 the normal's point stands for Student's, 4 % smaller at most.
  const t = tQuantile(0.975, freedom);
  expect(Math.abs(c.least / (c.scatter * Math.sqrt(2 / end)) - t)).toBeLessThan(freedom <= 30 ? 0.0006 : 0.04 * t);
});

test.each([6, 8, 12, 20, 40])('%i days of mere scatter: about one in twenty is called a change, as 95 %% promises', (n) => {
  const wrong = share(n, 0);
  expect(wrong).toBeGreaterThan(0.015);
  expect(wrong).toBeLessThan(0.075);
});

test('a drift of four standard deviations is seen nearly always; the scatter is not inflated by it', () => {
  expect(share(12, 4)).toBeGreaterThan(0.85);
  const scatters = Array.from({ length: 300 }, () => realChange(series(12, 4))!.scatter).reduce((a, b) => a + b, 0) / 300;
  expect(scatters).toBeGreaterThan(0.9);
  expect(scatters).toBeLessThan(1.12);
});

test('too few days say nothing; days that are all alike have not changed', () => {
  expect(realChange([1, 2, 3])).toBeNull();
  expect(realChange([5, 5, 5, 5])!.real).toBe(false);
});

test('a day’s measures follow a simulated voice: where it changes, how far it leaps, how far it reaches', () => {
  const profile = typicalProfile('tenor', 'flip');
  const of = (seed: number, leapSt: number) =>
    analyseTake(
      sing(
        { ...profile, crossings: profile.crossings.map((c) => ({ ...c, leapSt })) },
        { kind: 'siren', legS: 3 },
        { seed, sampleRate: 22050, snrDb: 50 },
      ).pcm,
      'siren',
    ).findings;
  const take = (day: string, seed: number, leapSt: number) => ({ takeId: `${day}${seed}`, day, findings: of(seed, leapSt), marks: [] });
  const change = profile.crossings[0].upMidi;
  const days = measuresByDay([take('2026-02-02', 3, 1.5), take('2026-01-01', 1, 4), take('2026-01-01', 2, 4)], change);
  expect(days.map((d) => d.day)).toEqual(['2026-01-01', '2026-02-02']);
  expect(Math.abs(days[0].values['change-up']! - change)).toBeLessThan(1.5);
  expect(Math.abs(days[0].values.high! - profile.highMidi)).toBeLessThan(1.5);
  expect(days[0].values.leap!).toBeGreaterThan(2.5);
  expect(days[1].values.leap!).toBeLessThan(days[0].values.leap! - 1);
});
