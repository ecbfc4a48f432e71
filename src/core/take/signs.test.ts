import { seededRandom } from '../signal/stats';
import { confidenceOf, evidenceOf, type Weighing } from './signs';

const WEIGHING: Weighing<'level' | 'slope'> = { level: { nats: -2, least: 1 }, slope: { nats: 1.5, least: 0.5 } };
const NEEDED = 4;
const random = seededRandom(5);
/** Moments of a leg in which nothing happens but scatter, about a middle that a room or a voice may have anywhere. */
const quiet = (n: number, scatter = 1, level = 0) =>
  Array.from({ length: n }, () => ({ level: level + scatter * (random() - 0.5), slope: scatter * (random() - 0.5) }));

test('where nothing changes nothing speaks for a change, however unquiet the room, or far off its middle', () => {
  for (const group of [quiet(60), quiet(60, 20), quiet(60, 1, 40)])
    for (const e of evidenceOf([group], WEIGHING, NEEDED)[0]) expect(e).toBeLessThan(3);
});

test('a change stands out by its own scatter: the same dip is evidence in a quiet take, none in an unquiet one', () => {
  const with8 = (group: ReturnType<typeof quiet>) => group.map((s, i) => (i === 30 ? { level: s.level - 8, slope: s.slope + 4 } : s));
  const [calm] = evidenceOf([with8(quiet(60))], WEIGHING, NEEDED);
  const [wild] = evidenceOf([with8(quiet(60, 30))], WEIGHING, NEEDED);
  expect(calm[30]).toBeGreaterThan(10);
  expect(calm.indexOf(Math.max(...calm))).toBe(30);
  expect(wild[30]).toBeLessThan(calm[30] / 3);
});

test('each leg has its own middle, all of a take one scatter', () => {
  const [low, high] = [quiet(40), quiet(40, 1, 25)];
  const [a, b] = evidenceOf([low, high], WEIGHING, NEEDED);
  expect(Math.max(...a, ...b)).toBeLessThan(3);
});

test('a sign that can’t be read counts for nothing, and none counts without end', () => {
  const group = quiet(60);
  const blind = group.map((s) => ({ ...s, slope: NaN }));
  for (const e of evidenceOf([blind], WEIGHING, NEEDED)[0]) expect(Number.isFinite(e)).toBe(true);
  const wild = [...group, { level: -1e6, slope: 1e6 }, { level: 1e6, slope: -1e6 }];
  const e = evidenceOf([wild], WEIGHING, NEEDED)[0];
  // Eight units for it at most, three against it.
  expect(e[60]).toBeCloseTo(8 * 3.5 - NEEDED, 5);
  expect(e[61]).toBeCloseTo(-3 * 3.5 - NEEDED, 5);
});

test('as confidence evidence is a logistic, never quite certain', () => {
  expect(confidenceOf(0)).toBe(0.5);
  expect(confidenceOf(2) + confidenceOf(-2)).toBeCloseTo(1, 9);
  expect(confidenceOf(1000)).toBe(0.98);
  expect(confidenceOf(-1000)).toBe(0);
});
