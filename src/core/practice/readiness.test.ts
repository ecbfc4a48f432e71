import { mean, standardDeviation } from 'simple-statistics';
import { dayLater } from '../plan/days';
import { gaussian, seededRandom } from '../signal/stats';
import { checkedDays, isWarm, readinessOf, readinessOn, recoveredAfter, worseBy } from './readiness';
import { before, lineOn } from './made-log';
import { standing } from './standing';
import { Check } from './types';
import { voiceToday } from './voice-today';
import { CHECKED, Checked } from './voice-check';
import { allInEnglish, inEnglish } from '../format/say';

const TODAY = '2026-11-27';
const ago = (days: number) => dayLater(TODAY, -days);
const check = (checked: Checked, more: Partial<Check> = {}): Check => ({
  kind: 'check',
  warm: false,
  markerMidi: 73,
  sounded: true,
  checked,
  ...more,
});
const USUAL: Required<Checked> = { speaks: 57, late: 0.06, airy: 20, unsteady: 10, loud: 2, breaks: 1, top: 78 };

const normal = gaussian(seededRandom(11));
/** A day of a voice whose good days differ by what is usual; `off`: so many of those to the worse in some measures. */
const drawn = (off: Checked = {}): Checked =>
  Object.fromEntries(CHECKED.map(({ id, worse, usual }) => [id, USUAL[id] + usual * (normal() + worse * (off[id] ?? 0))]));
const weeks = (days: number) => Array.from({ length: days }, (_, i) => lineOn(ago(days - i), check(drawn())));

test('a value against good days, worked by hand: squares of the days and four usual ones', () => {
  const good = [20, 22, 19, 23];
  const sd = Math.sqrt((3 * standardDeviation(good) ** 2 * (4 / 3) + 4 * 2.5 ** 2) / 7);
  expect(worseBy(14, good, { worse: -1, usual: 2.5 })).toBeCloseTo((mean(good) - 14) / (sd * Math.sqrt(1.25)), 9);
  expect(worseBy(14, good, { worse: 1, usual: 2.5 })).toBeLessThan(0);
});

test('at no change one day in twenty is called worse, after four good days as after twenty', () => {
  for (const days of [4, 20]) {
    let lower = 0;
    for (let i = 0; i < 1500; i++) if (readinessOf(check(drawn()), weeks(days), TODAY).lowerSt > 0) lower++;
    expect(lower / 1500).toBeGreaterThan(0.01);
    expect(lower / 1500).toBeLessThan(0.07);
  }
});

test('a soft note that begins late and airy is told in four days of five, and the worse it is the lower the day', () => {
  const found = (off: Checked) => {
    const all = Array.from({ length: 400 }, () => readinessOf(check(drawn(off)), weeks(8), TODAY).lowerSt);
    return { told: all.filter((st) => st > 0).length / all.length, mean: mean(all) };
  };
  const some = found({ late: 3.5, airy: 3 });
  const much = found({ late: 6, airy: 5 });
  expect(some.told).toBeGreaterThan(0.8);
  expect(much.told).toBeGreaterThan(0.97);
  expect(much.mean).toBeGreaterThan(some.mean + 0.5);
});

test('nothing is concluded from less than two good days, of another soft note, or from days that were not well', () => {
  const bad = check({ ...USUAL, late: 0.9, airy: 2 });
  expect(readinessOf(bad, [], TODAY).lowerSt).toBe(0);
  expect(readinessOf(bad, weeks(1), TODAY).lowerSt).toBe(0);
  expect(readinessOf(bad, weeks(3), TODAY).lowerSt).toBe(3);
  expect(readinessOf({ ...bad, markerMidi: 76 }, weeks(3), TODAY).lowerSt).toBe(0);
  const hoarse = weeks(3).flatMap((e) => [e, lineOn(e.day, before({ hoarse: true }))]);
  expect(readinessOf(bad, hoarse, TODAY).days).toBe(0);
  expect(
    readinessOf(
      bad,
      weeks(3).map((e) => ({ ...e, day: dayLater(e.day, -90) })),
      TODAY,
    ).days,
  ).toBe(0);
});

test('a better day than usual raises nothing', () => {
  const best = readinessOf(check({ ...USUAL, late: 0, airy: 40, top: 90, loud: -10 }), weeks(6), TODAY);
  expect([best.lowerSt, best.share, best.because]).toEqual([0, 1, []]);
});

test('the soft note that was there on other days and is not today ends practice; one that never was doesn’t', () => {
  const gone = lineOn(TODAY, check({}, { sounded: false }));
  expect(standing([...weeks(3), gone], TODAY).stopped?.id).toBe('soft-gone');
  expect(standing([...weeks(1), gone], TODAY).stopped).toBeNull();
  const never = weeks(3).map((e) => ({ ...e, what: check({}, { sounded: false }) }));
  expect(standing([...never, gone], TODAY).stopped).toBeNull();
});

test('of two checks of a day the worse holds; what was sung warm doesn’t count as a day’s', () => {
  const bad = check({ ...USUAL, late: 0.5 });
  const log = [...weeks(5), lineOn(TODAY, bad), lineOn(TODAY, check(USUAL))];
  const holds = readinessOn(log, TODAY)!;
  expect(holds.lowerSt).toBeGreaterThan(0);
  expect(holds.share).toBeLessThan(1);
  expect(inEnglish(holds.because[0])).toBe(`The soft C#5 begins 0.50 s late; on good days ${holds.stands[0].usual.toFixed(2)} s.`);
  expect(readinessOn([...weeks(5), lineOn(TODAY, { ...bad, warm: true })], TODAY)).toBeNull();
});

test('warm is when the soft note is as on good days', () => {
  const log = weeks(6);
  expect(isWarm(check(USUAL, { warm: true }), log, TODAY)).toBe(true);
  expect(isWarm(check({ ...USUAL, late: 0.4 }, { warm: true }), log, TODAY)).toBe(false);
  expect(isWarm(check({}, { warm: true, sounded: false }), log, TODAY)).toBe(false);
  expect(isWarm(check(USUAL, { warm: true }), [], TODAY)).toBeNull();
});

test('followed over weeks: each day against those before it, and the days until it was as usual again', () => {
  const log = [...weeks(8), lineOn(TODAY, check({ ...USUAL, late: 0.5 })), lineOn(dayLater(TODAY, 3), check(USUAL))];
  const days = checkedDays(log);
  expect(days).toHaveLength(10);
  expect(days[0].days).toBe(0);
  expect(days[8].lowerSt).toBeGreaterThan(0);
  expect(recoveredAfter(days, TODAY)).toBe(3);
  expect(recoveredAfter(days, dayLater(TODAY, 3))).toBeNull();
});

test('a coach reads in the lesson what the day’s check and other singing say, and nothing on a good day', () => {
  const good = weeks(8);
  expect(voiceToday([...good, lineOn(TODAY, check(USUAL))], TODAY)).toEqual({ lowerSt: 0, because: [] });
  const tired = voiceToday([...good, lineOn(TODAY, check(drawn({ late: 6, airy: 6 })))], TODAY);
  expect(tired.lowerSt).toBeGreaterThan(0);
  expect(inEnglish(tired.because[0])).toMatch(/^The check of today: what reaches above the change is .* lower\.$/);
  const rehearsed = voiceToday([...good, lineOn(TODAY, { kind: 'elsewhere', where: 'rehearsal', minutes: 120 })], TODAY);
  expect(allInEnglish(rehearsed)).toEqual({
    lowerSt: 0,
    because: [expect.stringContaining('The voice has worked today (rehearsal, 120 min)')],
  });
});
