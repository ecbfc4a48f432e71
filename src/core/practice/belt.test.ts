import { inEnglish } from '../format/say';
import { exerciseById, SHELF } from '../exercise/shelf';
import { request, voice } from '../plan/drawn-voices';
import { planFor } from '../plan/plan';
import { beltedFrom, beltMinutes, isBelt } from './belt';
import { loadOf } from './load';
import { done, lineOn } from './made-log';
import { Load } from './types';
import { workOfDay } from './work-of-day';

const sung = (day: string, load: Load | null) => lineOn(day, done({ exerciseId: 'belt-hold', load }));

test('what is belted: calls and belts that reach the change, not what is spoken low, crossed or strengthened in head', () => {
  expect(SHELF.filter(isBelt).map((e) => e.id)).toEqual(['call-out', 'nay-octave', 'belt-hold']);
  expect(beltedFrom(exerciseById('belt-hold'), 69)).toBe(67);
  expect(beltedFrom(exerciseById('say-then-sustain'), 69)).toBeNull();
});

test('seconds belted are those voiced from two semitones under the change up', () => {
  const trace = { midi: [60, 60, 0, 67, 68, 70, 66.9], hopS: 0.5 };
  expect(loadOf(trace, 67)).toMatchObject({ voicedS: 3, beltS: 1.5 });
  expect(loadOf(trace)).not.toHaveProperty('beltS');
});

test('a week is seven days up to today; nobody listening is no belting', () => {
  const load = (beltS: number): Load => ({ voicedS: 100, cycles: 1, beltS });
  const log = [
    sung('2026-11-20', load(600)),
    sung('2026-11-21', load(90)),
    sung('2026-11-27', load(30)),
    sung('2026-11-26', null),
    sung('2026-11-28', load(60)),
  ];
  expect(beltMinutes(log, '2026-11-27')).toBe(2);
});

test('when the week’s belting is done what belts is left, and nothing else', () => {
  const plan = planFor(request('mezzo', voice('mezzo', 'flip')))!;
  const items = [...plan.items, { ...plan.items[0], exerciseId: 'call-out' }].map((it) => ({
    ...it,
    exercise: exerciseById(it.exerciseId),
  }));
  const of = (belted: boolean) =>
    workOfDay(items, null, { today: null, returning: 1, bent: null, belted, readiness: null, elsewhere: null }, plan.anchors);
  expect(of(false).items).toHaveLength(items.length);
  expect(of(true).items.map((it) => it.exerciseId)).toEqual(plan.items.map((it) => it.exerciseId));
  expect(of(true).because.map(inEnglish).join()).toContain('belting is done');
});
