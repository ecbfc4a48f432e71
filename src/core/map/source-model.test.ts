import { Leg } from '../take/types';
import { Made, madeSlide } from './made-slide';
import { Rise, sourceModel } from './source-model';

const at = (midi: number, widthSt = 4): Rise => ({ upMidi: midi + 0.75, downMidi: midi - 0.75, widthSt });
const PLACES = Array.from({ length: 37 }, (_, i) => 53 + 0.5 * i);
const likeliest = (takes: Leg[][], known: Rise[] = []) => {
  const evidence = sourceModel(takes)!.evidenceFor(
    PLACES.map((p) => at(p)),
    known,
  );
  const most = Math.max(...evidence);
  return { midi: PLACES[evidence.indexOf(most)], evidence: most };
};
const three = (of: Made) => (['ah', 'oh', 'eh'] as const).map((vowel, i) => madeSlide({ vowel, seed: i + 1, ...of }));

test.each([57, 60.5, 64, 67])('a change at %f that no pass makes audible is the best explanation of three slides', (midi) => {
  const { midi: found, evidence } = likeliest(three({ rise: at(midi, 5) }));
  expect(Math.abs(found - midi)).toBeLessThanOrEqual(1);
  expect(evidence).toBeGreaterThan(5);
});

test('resonances, however the pitch goes through them, are no change', () => {
  for (let seed = 10; seed < 16; seed++) expect(likeliest(three({ seed })).evidence).toBeLessThan(1);
});

test('how loud a pitch is sung says nothing', () => {
  const evidence = (level: Made['level']) => sourceModel(three({ rise: at(62), level }))!.evidenceFor([at(60), at(62)], []);
  const [even, loud] = [evidence(() => 0), evidence((m) => 12 * Math.sin(m) + m / 2)];
  for (const i of [0, 1]) expect(loud[i]).toBeCloseTo(even[i], 6);
});

test('a change that is known takes its evidence with it, and leaves that of another', () => {
  const both = three({ rise: at(58, 3) }).map((legs) =>
    legs.map((leg) => ({
      ...leg,
      harmonics: leg.harmonics!.map(({ midi, db }) => {
        const head = 1 / (1 + Math.exp(-4.394 * (midi - 68 - (leg.direction === 'up' ? 0.75 : -0.75))));
        return { midi, db: db.map((x, h) => x && x - 2.5 * head * Math.log2(h + 1) + (h === 0 ? 4 * head : 0)) };
      }),
    })),
  );
  const model = sourceModel(both)!;
  const alone = model.evidenceFor([at(58)], [])[0];
  expect(model.evidenceFor([at(58)], [at(58)])[0]).toBeLessThan(0.3 * alone);
  expect(Math.abs(likeliest(both, [at(68, 1.5)]).midi - 58)).toBeLessThanOrEqual(1);
});

test('each take alone is asked too: the one without the change speaks against it', () => {
  const rise = at(62);
  const [with1, with2, without] = sourceModel([
    madeSlide({ rise }),
    madeSlide({ rise, vowel: 'oh', seed: 2 }),
    madeSlide({ vowel: 'eh', seed: 3 }),
  ])!.evidenceByTake(rise, []);
  expect(Math.min(with1, with2)).toBeGreaterThan(0);
  expect(without).toBeLessThan(-1);
});

test('of takes without harmonics nothing is learned', () => {
  expect(sourceModel([[]])).toBeNull();
});
