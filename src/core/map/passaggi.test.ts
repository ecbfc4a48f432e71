import { Direction, Leg } from '../take/types';
import { poolPassaggi } from './passaggi';
import { TakeEvidence, Vote } from './types';

const leg = (direction: Direction, startS: number): Leg => ({
  startS,
  endS: startS + 3,
  direction,
  lowestMidi: 48,
  highestMidi: 84,
  crossOvers: [],
});

/** Takes that each go up and down once over three octaves: constructed, only what the pool looks at. */
const takes = (count: number): TakeEvidence[] =>
  Array.from({ length: count }, (_, i) => ({
    takeId: `take-${i}`,
    marks: [],
    findings: { slid: true, legs: [leg('up', 0), leg('down', 3)] } as unknown as TakeEvidence['findings'],
  }));

const vote = (take: number, direction: Direction, midi: number, kind: Vote['kind'] = 'flip'): Vote => ({
  takeId: `take-${take}`,
  leg: direction === 'up' ? 0 : 1,
  timeS: 1,
  midi,
  direction,
  kind,
  widthSt: 1,
  weight: 0.9,
  source: 'machine',
});

test('a change held on to by five semitones going up is one passaggio with two places', () => {
  const votes = [0, 1, 2].flatMap((t) => [vote(t, 'up', 66 + 0.2 * t), vote(t, 'down', 61 + 0.2 * t)]);
  const [one, ...more] = poolPassaggi(takes(3), votes);
  expect(more).toEqual([]);
  expect(one).toMatchObject({ name: 'flip', up: { found: 3, of: 3 }, down: { found: 3, of: 3 } });
  expect(one.upMidi).toBeCloseTo(66.2, 5);
  expect(one.downMidi).toBeCloseTo(61.2, 5);
  expect(one.midi).toBeCloseTo(63.7, 5);
});

test('two changes a fifth apart are two, each with its own two places', () => {
  const votes = [0, 1, 2].flatMap((t) => [
    vote(t, 'up', 65),
    vote(t, 'down', 63.5),
    vote(t, 'up', 72, 'dip'),
    vote(t, 'down', 70.5, 'dip'),
  ]);
  const found = poolPassaggi(takes(3), votes);
  expect(found.map((p) => [p.upMidi, p.downMidi, p.name])).toEqual([
    [65, 63.5, 'flip'],
    [72, 70.5, 'toggle'],
  ]);
});

test('one take alone proves nothing where there are three; one pass of eight neither', () => {
  expect(poolPassaggi(takes(3), [vote(0, 'up', 66), vote(0, 'down', 64)])).toEqual([]);
  expect(poolPassaggi(takes(4), [vote(0, 'up', 66)])).toEqual([]);
  expect(poolPassaggi(takes(1), [vote(0, 'up', 66), vote(0, 'down', 64)]).length).toBe(1);
});

test('more takes that agree make the interval narrower, takes that differ wider', () => {
  const width = (places: number[]) => {
    const [p] = poolPassaggi(
      takes(places.length),
      places.flatMap((m, t) => [vote(t, 'up', m), vote(t, 'down', m - 1.5)]),
    );
    return p.highMidi - p.lowMidi;
  };
  expect(width([65, 65, 65, 65, 65, 65])).toBeLessThan(width([65, 65]));
  expect(width([63.5, 65, 66.5])).toBeGreaterThan(width([65, 65, 65]));
});
