import * as fc from 'fast-check';
import { compare, editsOf, withEdits } from './edits';
import { PlanItem } from './types';

const item = (exerciseId: string, more: Partial<PlanItem> = {}): PlanItem => ({
  exerciseId,
  part: 'work',
  keys: [60],
  sound: 'oo',
  tempo: 90,
  minutes: 1,
  timesADay: 2,
  days: [0, 1],
  reason: 'Because.',
  caution: '',
  rules: [],
  advance: '',
  ...more,
});
const ids = (items: PlanItem[]) => items.map((it) => it.exerciseId);

const plan = fc
  .uniqueArray(fc.constantFrom(...'abcdefgh'), { maxLength: 8 })
  .chain((names) => fc.tuple(...names.map((n) => fc.integer({ min: 60, max: 120 }).map((tempo) => item(n, { tempo })))));

test('edits put back on the same suggestion give the edited plan', () => {
  fc.assert(fc.property(plan, plan, (suggested, edited) => expect(withEdits(suggested, editsOf(suggested, edited))).toEqual(edited)));
});

test('a plan worked out anew keeps what the coach did and takes up what is new', () => {
  const suggested = [item('a'), item('b'), item('c')];
  const mine = [item('c'), item('a', { minutes: 3 }), item('x')];
  const anew = [item('a', { keys: [62] }), item('n'), item('b'), item('c', { keys: [55] })];
  const out = withEdits(anew, editsOf(suggested, mine));
  expect(ids(out)).toEqual(['c', 'a', 'n', 'x']);
  expect(out[1]).toMatchObject({ minutes: 3, keys: [62] });
  expect(out[0].keys).toEqual([55]);
});

test('two versions side by side', () => {
  expect(compare([item('a'), item('b')], [item('c'), item('a', { tempo: 100 })])).toEqual([
    { exerciseId: 'c', kind: 'added', fields: [] },
    { exerciseId: 'a', kind: 'changed', fields: ['tempo'] },
    { exerciseId: 'b', kind: 'out', fields: [] },
  ]);
});
