import * as fc from 'fast-check';
import { patternSpan } from '../exercise/pattern';
import { exerciseById } from '../exercise/shelf';
import { asRequest, drawnRequest, request, voice } from '../plan/drawn-voices';
import { dayBent, RoadDate } from '../plan/dates';
import { occasionSet } from '../plan/occasions';
import { planFor, planning } from '../plan/plan';
import { PlanItem } from '../plan/types';
import { OfDay, songsRest, workOfDay } from './work-of-day';
import { allInEnglish } from '../format/say';

const whole = (items: readonly PlanItem[]) => items.map((it) => ({ ...it, exercise: exerciseById(it.exerciseId) }));
const USUAL: OfDay = { today: null, returning: 1, bent: null, belted: false, readiness: null, elsewhere: null };
const readiness = (lowerSt: number) => ({ lowerSt, share: [1, 0.8, 0.6, 0.4][lowerSt], because: [] });
const mezzo = () => request('mezzo', voice('mezzo', 'flip'));
const tops = (items: ReturnType<typeof whole>) => items.flatMap((it) => it.keys.map((k) => k + patternSpan(it.exercise).top));

test('a day like any other is the week’s', () => {
  const plan = planFor(mezzo())!;
  const work = workOfDay(whole(plan.items), null, USUAL, plan.anchors);
  expect(work).toEqual({ items: whole(plan.items), share: 1, because: [] });
});

test('whatever bears on a day only takes away: no key higher, no minute more, nothing that wasn’t there', () => {
  const ofDay = fc.record({
    today: fc.option(fc.record({ hoarse: fc.boolean(), ill: fc.boolean(), pain: fc.boolean() })),
    returning: fc.constantFrom(0.3, 0.6, 0.8, 1),
    belted: fc.boolean(),
    bent: fc.constantFrom(null, { load: 0.5, set: null, light: true, because: 'Two days before the show.' }),
    readiness: fc.option(fc.integer({ min: 0, max: 3 }).map(readiness)),
    elsewhere: fc.constantFrom(null, { share: 0.5, light: true, because: 'Rehearsed.' }, { share: 0.5, light: false, because: 'Sang.' }),
  });
  fc.assert(
    fc.property(drawnRequest, ofDay, (drawn, bears) => {
      const plan = planFor(asRequest(drawn));
      if (!plan) return;
      const items = whole(plan.items);
      const { items: left, share } = workOfDay(items, null, bears, plan.anchors);
      expect(share).toBeLessThanOrEqual(Math.min(bears.readiness?.share ?? 1, bears.bent?.load ?? 1, bears.elsewhere?.share ?? 1));
      if (bears.elsewhere?.light) expect(left.filter((it) => it.exercise.role === 'test' || it.exercise.weight > 0)).toEqual([]);
      const wrong = left.filter((it) => {
        const was = items.find((o) => o.exerciseId === it.exerciseId);
        const { bottom } = patternSpan(it.exercise);
        return (
          !was ||
          Math.max(...it.keys) > Math.max(...was.keys) ||
          it.minutes > was.minutes ||
          it.keys.some((k) => k + bottom < plan.anchors.low)
        );
      });
      expect(wrong).toEqual([]);
    }),
    { numRuns: 300 },
  );
});

test('a tired voice sings what reaches above the change lower, says so, and stops at nothing under it', () => {
  const plan = planFor(mezzo())!;
  const items = whole(plan.items);
  const work = workOfDay(items, null, { ...USUAL, readiness: { ...readiness(2), because: ['The soft note came late.'] } }, plan.anchors);
  expect(Math.max(...tops(work.items))).toBe(Math.max(...tops(items)) - 2);
  expect(allInEnglish(work.because)).toEqual([
    'Today what reaches above the change is a tone lower, and 60 % of the minutes.',
    'The soft note came late.',
  ]);
});

test('on the day of a show its own set is sung, two days before nothing that tests or adds weight', () => {
  const p = planning(mezzo())!;
  const plan = planFor(mezzo())!;
  const dates: RoadDate[] = [{ day: '2026-12-12', kind: 'show', name: 'the premiere' }];
  const on = (day: string) => {
    const bent = dayBent(day, dates);
    return workOfDay(whole(plan.items), bent?.set ? whole(occasionSet(bent.set, p)) : null, { ...USUAL, bent }, plan.anchors);
  };
  expect(on('2026-12-12').items.map((it) => it.exerciseId)).toEqual(occasionSet('show-day', p).map((it) => it.exerciseId));
  expect(allInEnglish(on('2026-12-12').because)).toEqual(['The day of the premiere: the show set, and no more.']);
  const before = on('2026-12-10');
  expect(before.share).toBe(0.5);
  expect(before.items.some(({ exercise: e }) => e.role === 'test' || e.weight > 0)).toBe(false);
  expect(on('2026-12-14').because).toEqual([]);
  expect(on('2026-12-13').items.map((it) => it.exerciseId)).toEqual(occasionSet('recovery', p).map((it) => it.exerciseId));
});

test('songs rest when the voice is not well, on its way back, and where a day has a set of its own; else they may be sung', () => {
  expect(songsRest(USUAL)).toBeNull();
  expect(songsRest({ ...USUAL, today: { hoarse: false, ill: false, pain: false } })).toBeNull();
  expect(songsRest({ ...USUAL, bent: { load: 0.5, set: null, light: true, because: '' } })).toBeNull();
  for (const bears of [
    { today: { hoarse: true, ill: false, pain: false } },
    { today: { hoarse: false, ill: true, pain: false } },
    { today: { hoarse: false, ill: false, pain: true } },
    { returning: 0.6 },
    { bent: { load: 0.4, set: 'show-day' as const, light: true, because: '' } },
  ])
    expect(songsRest({ ...USUAL, ...bears })).not.toBeNull();
});
