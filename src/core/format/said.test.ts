import { randomUUID } from 'node:crypto';
import { judgementInWords } from '../judge/words';
import { anchorsFor, beginCourse } from '../lesson/course';
import { PROTOCOLS } from '../lesson/protocols';
import { withJudged } from '../lesson/record';
import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import { analyseTake } from '../take/analyse';
import { said, type Said } from '../words/said';
import { CourseShape } from './lesson';
import { FindingsShape } from './take';
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

describe('what the computation says in gaps is let in', () => {
  const inGaps = { says: expect.any(String), with: expect.anything() };

  test('of a key sung in a lesson', () => {
    const says = judgementInWords({ because: { fault: 'leapt', midi: 65, key: 2 }, keys: [] });
    expect(says).toMatchObject(inGaps);
    const key = {
      takeId: randomUUID(),
      exerciseId: 'five-note-ah',
      name: 'Five notes',
      sound: 'ah',
      tonicMidi: 55,
      verdict: 'not yet',
      says,
    } as const;
    const course = withJudged(beginCourse(PROTOCOLS[0], anchorsFor(null, 'tenor')), key);
    expect(CourseShape.parse(course)).toEqual(course);
  });

  test('of a take that is not what was asked', () => {
    const { pcm } = sing(
      typicalProfile('tenor', 'blend'),
      { kind: 'pattern', degrees: [1, 2, 3, 4, 5, 4, 3, 2, 1], tonics: [50] },
      { seed: 1, sampleRate: 22050 },
    );
    const { findings } = analyseTake(pcm, 'scale', { asked: { degrees: [1, 2, 3, 4, 5, 4, 3, 2, 1], tonicMidi: 53 } });
    expect(findings.quality.reasons).toContainEqual(inGaps);
    expect(FindingsShape.parse(findings)).toEqual(findings);
  });
});
