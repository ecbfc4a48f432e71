import { said, type Said } from '../words/said';
import { SaidShape } from './said';

const taken = (what: unknown) => SaidShape.safeParse(what).success;
const within = (levels: number): Said => (levels === 0 ? 'chest' : said('{it}', { it: within(levels - 1) }));

test('text of earlier versions and what is said with its gaps filled are taken', () => {
  expect(taken('Because it wakes the middle of the voice.')).toBe(true);
  expect(
    taken(
      said('{n, plural, one {# key} other {# keys}} from {note} in {key}: {all}, {own}', {
        n: 2,
        note: { note: 65, flats: true },
        key: { key: 60 },
        all: { all: ['chest', said('{n}', { n: 1 })], as: 'and' },
        own: { own: 'The Weir' },
      }),
    ),
  ).toBe(true);
});

test('what would break the page that says it is refused', () => {
  expect(taken(said('{n, plural, one {# key}', { n: 1 }))).toBe(false);
  expect(taken(said('from {low} to {high}', { low: 1 }))).toBe(false);
  expect(taken({ says: 'x', with: {}, more: 1 })).toBe(false);
  expect(taken(said('{it}', { it: { all: [], as: 'nor' } as never }))).toBe(false);
  expect(taken('x'.repeat(501))).toBe(false);
});

test('what nests for ever is refused before it is read', () => {
  expect([1, 3, 4, 5000].map((levels) => taken(within(levels)))).toEqual([true, true, false, false]);
});
