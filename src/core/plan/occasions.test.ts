import * as fc from 'fast-check';
import { inVoice } from '../exercise/keys';
import { patternSpan } from '../exercise/pattern';
import { exerciseById } from '../exercise/shelf';
import { blocked, conflicts, warms } from './check';
import { asRequest, drawnRequest, request, voice } from './drawn-voices';
import { OCCASION_IDS, OCCASIONS, occasionSet, occasionSets, warmUpFor } from './occasions';
import { planning } from './plan';
import { PlanRequest } from './types';

const planned = (more: Partial<PlanRequest> = {}) => planning(request('mezzo', voice('mezzo', 'flip'), more))!;
const minutesOf = (items: { minutes: number }[]) => items.reduce((sum, it) => sum + it.minutes, 0);

// Stages and lengths of warm-ups: common practice, no source.
test('an ordinary voice gets every set, of the minutes its name says', () => {
  const sets = occasionSets(planned());
  expect(sets.map((s) => s.id)).toEqual(OCCASION_IDS);
  const minutes = Object.fromEntries(sets.map((s) => [s.id, s.minutes]));
  expect(minutes).toMatchObject({ 'warm-up-3': 3, 'warm-up-8': 8, 'warm-up-15': 15, 'between-acts': 2 });
  expect(minutes['show-day']).toBeGreaterThanOrEqual(8);
  expect(minutes['show-day']).toBeLessThanOrEqual(10);
  const whole = occasionSet('warm-up-15', planned()).map((it) => it.exerciseId);
  // Low middle before the change, the change before the head, both at the end.
  const at = (id: string) => whole.indexOf(id);
  expect(at('five-note-warm-up')).toBeLessThan(at('long-siren'));
  expect(at('triad-warm-up')).toBeLessThan(at('long-siren'));
  expect(at('long-siren')).toBeGreaterThan(0);
});

test('in any voice: keys inside it, nothing a rule keeps out, nothing twice, begun warm, no longer than a day allows', () => {
  fc.assert(
    fc.property(drawnRequest, (drawn) => {
      const p = planning(asRequest(drawn));
      if (!p) return;
      for (const { id, items } of occasionSets(p)) {
        expect(minutesOf(items)).toBeLessThanOrEqual(p.minutesADay);
        expect(new Set(items.map((it) => it.exerciseId)).size).toBe(items.length);
        const wrong = items.filter((it) => {
          const e = exerciseById(it.exerciseId);
          const span = patternSpan(e);
          return it.keys.length === 0 || blocked(e, p) || !it.keys.every((key) => inVoice(span, key, p.anchors));
        });
        expect([id, wrong]).toEqual([id, []]);
        if (id.startsWith('warm-up') || id === 'show-day') expect(items.length === 0 || warms(items[0]) || p.narrow).toBe(true);
        expect(conflicts(items, p).filter((c) => c.rule === 'voice' || c.rule === 'chest-ceiling')).toEqual([]);
      }
    }),
    { numRuns: 300 },
  );
});

test('a morning, the day after and a cool-down stay under the change', () => {
  const p = planned();
  const over = (id: (typeof OCCASION_IDS)[number]) =>
    occasionSet(id, p).some((it) => it.keys.some((k) => k + patternSpan(exerciseById(it.exerciseId)).top > p.anchors.change));
  expect(OCCASION_IDS.filter((id) => 'low' in OCCASIONS[id]).some(over)).toBe(false);
  expect(over('warm-up-8')).toBe(true);
});

test('a small child takes no straw; an older voice sings slower and warms longer', () => {
  const child = planned({ age: 'under-9' });
  expect(occasionSets(child).length).toBeGreaterThan(3);
  for (const { items } of occasionSets(child)) for (const it of items) expect(exerciseById(it.exerciseId).needs).toEqual([]);
  const tempoOf = (p: ReturnType<typeof planned>) => occasionSet('warm-up-8', p)[0].tempo;
  expect(tempoOf(planned({ age: 'older' }))).toBeLessThan(tempoOf(planned({ age: 'adult' })));
});

test.each([
  [{ minor: false, older: false, hour: 18, sungToday: false }, 'warm-up-8'],
  [{ minor: true, older: false, hour: 18, sungToday: false }, 'warm-up-3'],
  [{ minor: false, older: true, hour: 18, sungToday: false }, 'warm-up-15'],
  [{ minor: false, older: false, hour: 7, sungToday: false }, 'early-morning'],
  [{ minor: false, older: true, hour: 18, sungToday: true }, 'warm-up-3'],
] as const)('how much warm-up: %o', (given, wanted) => expect(warmUpFor(given)).toBe(wanted));
