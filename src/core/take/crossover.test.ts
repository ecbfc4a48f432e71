import { gaussian, seededRandom } from '../signal/stats';
import { colourOf, fitCrossOvers } from './crossover';
import type { Direction, LegColour } from './types';

/** Scores along a slide over two octaves: a slope, rises where colour crosses over, and noise. All invented: the method's own truth. */
function leg(direction: Direction, rises: { midi: number; widthSt: number; by: number }[], seed: number, slope = 0.05): LegColour {
  const normal = gaussian(seededRandom(seed));
  const midi = Float64Array.from({ length: 600 }, (_, i) => 48 + (24 * (direction === 'up' ? i : 599 - i)) / 599);
  const score = midi.map((m) => {
    // 10 % to 90 % of a logistic rise is 4.39 of its scale.
    const crossed = rises.reduce((s, r) => s + r.by / (1 + Math.exp((-4.39 * (m - r.midi)) / r.widthSt)), 0);
    return slope * (m - 60) + crossed + 0.35 * normal();
  });
  return { direction, points: colourOf(midi, score) };
}

test.each([
  [58, 56],
  [62, 62],
  [66, 63.5],
])('a rise that stands at %d on the way up and at %d on the way down is found in each', (up, down) => {
  for (let seed = 1; seed <= 5; seed++) {
    const legs = [leg('up', [{ midi: up, widthSt: 2, by: 4 }], seed), leg('down', [{ midi: down, widthSt: 2, by: 4 }], seed + 50)];
    const [[a], [b]] = fitCrossOvers(legs);
    expect(Math.abs(a.midi - up)).toBeLessThan(0.6);
    expect(Math.abs(b.midi - down)).toBeLessThan(0.6);
    expect(a.confidence).toBeGreaterThan(0.6);
  }
});

test('a slope alone is no crossing, however steep', () => {
  for (const slope of [0, 0.1, 0.2, -0.1])
    for (let seed = 1; seed <= 8; seed++)
      expect(fitCrossOvers([leg('up', [], seed, slope), leg('down', [], seed + 50, slope)])).toEqual([[], []]);
});

test('the wider the crossing, the wider it is said to be', () => {
  const widths = [1.5, 4, 8].map((widthSt) => fitCrossOvers([leg('up', [{ midi: 61, widthSt, by: 4 }], 3)])[0][0].widthSt);
  expect(widths[0]).toBeLessThan(widths[1]);
  expect(widths[1]).toBeLessThan(widths[2]);
});

test('two crossings are two, lowest first, and one is not split', () => {
  const two = [
    { midi: 55, widthSt: 1.5, by: 4 },
    { midi: 66, widthSt: 1.5, by: 4 },
  ];
  const [fits] = fitCrossOvers([leg('up', two, 2), leg('down', two, 52)]);
  expect(fits.map((f) => Math.round(f.midi))).toEqual([55, 66]);
  for (let seed = 1; seed <= 8; seed++)
    expect(fitCrossOvers([leg('up', [two[1]], seed), leg('down', [two[1]], seed + 50)])[0].length).toBe(1);
});

test('scores mean something only against each other; a leg too short to tell silences no other', () => {
  const crossing = [{ midi: 61, widthSt: 2, by: 4 }];
  const up = leg('up', crossing, 4);
  const lifted = { ...up, points: up.points.map((p) => ({ ...p, score: p.score + 7 })) };
  const [[a]] = fitCrossOvers([up]);
  const [[b]] = fitCrossOvers([lifted]);
  expect(b.midi).toBeCloseTo(a.midi, 1);
  const short: LegColour = { direction: 'down', points: colourOf([60, 59.5, 59], [1, 1, 1]) };
  const [beside, none] = fitCrossOvers([up, short]);
  expect(beside).toEqual([a]);
  expect(none).toEqual([]);
  expect(fitCrossOvers([])).toEqual([]);
});
