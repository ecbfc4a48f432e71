import * as fc from 'fast-check';
import { inVoice } from '../exercise/keys';
import { patternSpan } from '../exercise/pattern';
import { exerciseById } from '../exercise/shelf';
import { blocked } from './check';
import { asRequest, drawnRequest, request, voice } from './drawn-voices';
import { occasionSets } from './occasions';
import { planning } from './plan';
import { octavesUnder, setInVoice, sharedRange, togetherSets } from './together';

const sings = (type: Parameters<typeof voice>[0]) => planning(request(type, voice(type, 'flip')))!;
const warmUp = (of: ReturnType<typeof togetherSets>) => of.find((set) => set.id === 'warm-up-8')!;

test('one voice alone has the sets it has by itself', () => {
  const p = sings('mezzo');
  expect(togetherSets([p]).map((s) => [s.id, s.minutes, s.items.map((it) => it.exerciseId)])).toEqual(
    occasionSets(p).map((s) => [s.id, s.minutes, s.items.map((it) => it.exerciseId)]),
  );
  expect(sharedRange([p])).toEqual({ low: p.anchors.low, high: p.anchors.high });
  expect(togetherSets([])).toEqual([]);
  expect(sharedRange([])).toBeNull();
});

test('a section of one kind sings as written; where low and high voices sing together the low ones are an octave under it', () => {
  expect(octavesUnder(['soprano', 'mezzo'])).toEqual([0, 0]);
  expect(octavesUnder(['tenor', 'bass'])).toEqual([0, 0]);
  expect(octavesUnder(['soprano', 'tenor', 'contralto', 'bass'])).toEqual([0, 12, 0, 12]);
});

test('a choir of four voices warms up together for eight minutes, in keys that reach no further than its narrowest voices', () => {
  const choir = (['soprano', 'contralto', 'tenor', 'bass'] as const).map(sings);
  const range = sharedRange(choir)!;
  expect(range.high - range.low).toBeGreaterThan(12);
  const set = warmUp(togetherSets(choir));
  expect(set.minutes).toBe(8);
  expect(set.items.length).toBeGreaterThanOrEqual(4);
  for (const it of set.items) {
    const span = patternSpan(exerciseById(it.exerciseId));
    for (const key of it.keys) expect(inVoice(span, key, range)).toBe(true);
  }
});

test('whoever sings together: nobody leaves their voice, and nothing is sung that a rule keeps from one of them', () => {
  fc.assert(
    fc.property(fc.array(drawnRequest, { minLength: 2, maxLength: 5 }), (drawn) => {
      const voices = drawn.map((d) => planning(asRequest(d))).filter((p) => p !== null);
      const under = octavesUnder(voices.map((p) => p.voiceType));
      for (const { id, items, minutes } of togetherSets(voices)) {
        expect(minutes).toBeLessThanOrEqual(Math.min(...voices.map((p) => p.minutesADay)));
        for (const it of items) {
          const e = exerciseById(it.exerciseId);
          const wrong = voices.filter(
            (p, i) => blocked(e, p) || it.keys.length === 0 || !it.keys.every((key) => inVoice(patternSpan(e), key - under[i], p.anchors)),
          );
          expect([id, it.exerciseId, wrong.length]).toEqual([id, it.exerciseId, 0]);
          expect(new Set(it.keys).size).toBe(it.keys.length);
        }
      }
    }),
    { numRuns: 150 },
  );
});

test('given to one of them to practise, a set stands in the octave that voice sings in, with what is said to that voice alone', () => {
  const choir = (['soprano', 'bass'] as const).map(sings);
  const set = warmUp(togetherSets(choir));
  const [high, low] = choir.map((p, i) => setInVoice(set, p, octavesUnder(['soprano', 'bass'])[i]));
  expect(low.map((it) => it.exerciseId)).toEqual(high.map((it) => it.exerciseId));
  set.items.forEach((it, i) => {
    expect(high[i].keys).toEqual(it.keys);
    expect(low[i].keys).toEqual(it.keys.map((key) => key - 12));
    // Together is together: one sound, one tempo, as long.
    for (const own of [high[i], low[i]])
      expect([own.sound, own.tempo, own.minutes, own.days]).toEqual([it.sound, it.tempo, it.minutes, it.days]);
    for (const key of low[i].keys) expect(inVoice(patternSpan(exerciseById(it.exerciseId)), key, choir[1].anchors)).toBe(true);
  });
});
