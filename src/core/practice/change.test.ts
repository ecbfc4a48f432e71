import tQuantile from '@stdlib/stats-base-dists-t-quantile';
import { linearRegression, mean, sum } from 'simple-statistics';
import { gaussian, seededRandom } from '../signal/stats';
import type { SimTask } from '../sim/score';
import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import { analyseTake } from '../take/analyse';
import { DayValues, realChange } from './change';
import { daysWith, MEASURED, measuresByDay } from './measures';

const DAY = 86_400_000;
const random = seededRandom(7);
const normal = gaussian(random);

/** Days a week apart on average, `passes` each; days and passes scatter, and the whole moves by `drift`. */
const series = (days: number, passes: number, drift: number, betweenDays: number, betweenPasses: number): DayValues[] =>
  Array.from({ length: days }, (_, i) => {
    const day = (drift * i) / (days - 1) + betweenDays * normal();
    return { at: DAY * (7 * i + 4 * random()), passes: Array.from({ length: passes }, () => day + betweenPasses * normal()) };
  });

/** A leap's usual scatter; voices differ from it by half as much again either way. */
const USUAL = MEASURED.find((m) => m.id === 'leap')!.usual;
const another = () => 1.5 ** (2 * random() - 1);
const share = (days: number, passes: number, drift: number, of = 2000) => {
  let real = 0;
  for (let i = 0; i < of; i++)
    real += Number(realChange(series(days, passes, drift, USUAL.day * another(), USUAL.pass * another()), USUAL)!.real);
  return real / of;
};

test('a leap that shrinks 4.4, 3.8, 3.0, 2.5 over four days has shrunk', () => {
  const days = [4.4, 3.8, 3.0, 2.5].map((leap, i) => ({ at: i * DAY, passes: [leap - 0.3, leap + 0.3, leap, leap] }));
  const change = realChange(days, USUAL)!;
  expect(change.real).toBe(true);
  // Least squares worked by hand: 0.65 a day, 1.95 over the three.
  expect(change.by).toBeCloseTo(-1.95, 6);
});

test.each([3, 4, 8, 20])('%i days without a change: one in twenty is called one, as 95 %% promises', (days) => {
  for (const passes of [1, 8]) {
    const wrong = share(days, passes, 0);
    expect(wrong).toBeGreaterThan(0.01);
    expect(wrong).toBeLessThan(0.075);
  }
});

test('two semitones less leap over four days of eight passes is found in four voices of five', () => {
  expect(share(4, 8, -2)).toBeGreaterThanOrEqual(0.8);
});

test('the interval holds the true change in 95 of 100, whatever it is', () => {
  let held = 0;
  for (let i = 0; i < 1000; i++) {
    const days = series(6, 4, -1.5, USUAL.day, USUAL.pass);
    const { lowBy, highBy } = realChange(days, USUAL)!;
    // The drift is laid along the days' numbers; they fall a little early or late.
    if (lowBy <= -1.5 && -1.5 <= highBy) held++;
  }
  expect(held / 1000).toBeGreaterThan(0.92);
  expect(held / 1000).toBeLessThan(0.985);
});

// Slope by simple-statistics, Student's t by stdlib's quantile; with one pass a day the variance has a closed form:
// (squares about the line + 4 usual days) / (days - 2 + 4).
test.each([3, 5, 13, 30])('%i days of one pass: trend, scatter and interval are what statistics libraries say', (n) => {
  const days = series(n, 1, 1, 0.5, 0);
  const usual = { day: 0.4, pass: 0 };
  const change = realChange(days, usual)!;
  const x = days.map((d) => (d.at - days[0].at) / (days[n - 1].at - days[0].at));
  const y = days.map((d) => d.passes[0]);
  const { m, b } = linearRegression(x.map((v, i) => [v, y[i]]));
  expect(change.by).toBeCloseTo(m, 6);
  expect(change.first).toBeCloseTo(b, 6);
  const squares = sum(y.map((v, i) => (v - b - m * x[i]) ** 2));
  const variance = (squares + 4 * usual.day ** 2) / (n - 2 + 4);
  expect(change.scatter ** 2).toBeCloseTo(variance, 6);
  const t = tQuantile(0.975, n - 2 + 4);
  const reach = t * Math.sqrt(variance / sum(x.map((v) => (v - mean(x)) ** 2)));
  // Beyond 30 degrees of freedom the normal's point stands for Student's, 4 % smaller at most.
  expect(Math.abs((change.highBy - change.lowBy) / 2 / reach - 1)).toBeLessThan(n + 2 <= 30 ? 0.001 : 0.04);
});

test('many passes of one day are one day: they tell their mean, not the trend', () => {
  const days = [0, 1, 2].map((i) => ({ at: i * DAY, passes: Array(50).fill(3 + 0.3 * (i % 2)) as number[] }));
  expect(realChange(days, USUAL)!.real).toBe(false);
});

test('too few days say nothing; days that are all alike have not changed', () => {
  expect(
    realChange(
      [1, 2].map((v, i) => ({ at: i * DAY, passes: [v] })),
      USUAL,
    ),
  ).toBeNull();
  expect(
    realChange(
      [5, 5, 5, 5].map((v, i) => ({ at: i * DAY, passes: [v] })),
      USUAL,
    )!.real,
  ).toBe(false);
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

test('like is compared with like: a day of scales alone has no leap, no ends and no share of passes; a day of a song alone is none', () => {
  const profile = typicalProfile('mezzo', 'flip');
  const take = (day: string, task: 'siren' | 'scale' | 'free') => {
    const asked: SimTask =
      task === 'siren' ? { kind: 'siren' } : { kind: 'pattern', degrees: [1, 2, 3, 4, 5, 4, 3, 2, 1], tonics: [60, 62, 64] };
    const { pcm } = sing(profile, asked, { seed: 1, sampleRate: 22050 });
    return { takeId: day + task, day, findings: analyseTake(pcm, task).findings, marks: [] };
  };
  const takes = [take('2026-01-01', 'siren'), take('2026-01-02', 'scale'), take('2026-01-03', 'free')];
  const measured = measuresByDay(takes, profile.crossings[0].upMidi);
  expect(measured.map(({ day }) => day)).toEqual(['2026-01-01', '2026-01-02']);
  expect(Object.keys(measured[1].values)).toEqual(['off']);
  expect(daysWith(measured, 'leap')).toHaveLength(1);
  expect(daysWith(measured, 'high')).toHaveLength(1);
});
