import { gaussian, seededRandom } from '../signal/stats';
import { midiToHz } from '../music/pitch';
import { Direction, Leg } from '../take/types';
import { Rise, sourceModel } from './source-model';

const [LOW, HIGH] = [48, 76];
const VOWELS = { ah: [800, 1200], oh: [550, 950], eh: [600, 1900] } as const;

interface Sung {
  vowel?: keyof typeof VOWELS;
  rise?: Rise | null;
  /** What is added to every harmonic at a pitch, dB. */
  level?: (midi: number) => number;
  seed?: number;
}

/**
 * A slide up and down, harmonic by harmonic: two plain resonances, harmonics that fall by 8 dB an octave, 1 dB of noise, and over
 * the rise 2.5 dB an octave more and 4 dB of first harmonic: constructed.
 */
function take({ vowel = 'ah', rise = null, level = () => 0, seed = 1 }: Sung): Leg[] {
  const noise = gaussian(seededRandom(seed));
  const formant = (hz: number) =>
    VOWELS[vowel].reduce((db, f) => db - 10 * Math.log10((1 - (hz / f) ** 2) ** 2 + ((0.15 * hz) / f) ** 2), 0);
  return (['up', 'down'] as Direction[]).map((direction) => ({
    startS: 0,
    endS: 3,
    direction,
    lowestMidi: LOW,
    highestMidi: HIGH,
    crossOvers: [],
    harmonics: Array.from({ length: Math.floor((HIGH - LOW) / 0.75) + 1 }, (_, i) => {
      const midi = LOW + 0.75 * i;
      const place = rise && (direction === 'up' ? rise.upMidi : rise.downMidi);
      const head = place === null ? 0 : 1 / (1 + Math.exp((-4.394 * (midi - place)) / rise!.widthSt));
      const db = Array.from({ length: 16 }, (_, h) => {
        const hz = (h + 1) * midiToHz(midi);
        if (hz > 5500) return null;
        return level(midi) + formant(hz) - (8 + 2.5 * head) * Math.log2(h + 1) + (h === 0 ? 4 * head : 0) + noise();
      });
      return { midi, db };
    }),
  }));
}

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
const three = (of: Sung) => (['ah', 'oh', 'eh'] as const).map((vowel, i) => take({ vowel, seed: i + 1, ...of }));

test.each([57, 60.5, 64, 67])('a change at %f that no pass makes audible is the best explanation of three slides', (midi) => {
  const { midi: found, evidence } = likeliest(three({ rise: at(midi, 5) }));
  expect(Math.abs(found - midi)).toBeLessThanOrEqual(1);
  expect(evidence).toBeGreaterThan(5);
});

test('resonances, however the pitch goes through them, are no change', () => {
  for (let seed = 10; seed < 16; seed++) expect(likeliest(three({ seed })).evidence).toBeLessThan(1);
});

test('how loud a pitch is sung says nothing', () => {
  const evidence = (level: Sung['level']) => sourceModel(three({ rise: at(62), level }))!.evidenceFor([at(60), at(62)], []);
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
    take({ rise }),
    take({ rise, vowel: 'oh', seed: 2 }),
    take({ vowel: 'eh', seed: 3 }),
  ])!.evidenceByTake(rise, []);
  expect(Math.min(with1, with2)).toBeGreaterThan(0);
  expect(without).toBeLessThan(-1);
});

test('of takes without harmonics nothing is learned', () => {
  expect(sourceModel([[]])).toBeNull();
});
