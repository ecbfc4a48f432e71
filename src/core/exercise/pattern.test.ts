import fc from 'fast-check';
import { Note } from 'tonal';
import {
  directionOf,
  likelyTonic,
  parsePattern,
  patternSeconds,
  patternSpan,
  patternText,
  PatternError,
  stepAt,
  stepSemitones,
} from './pattern';
import type { Step } from './types';

const step: fc.Arbitrary<Step> = fc.record(
  {
    degree: fc.integer({ min: -6, max: 16 }),
    alter: fc.constantFrom(-1 as const, 1 as const),
    beats: fc.constantFrom(0.5, 1, 1.5, 2, 4),
    slide: fc.constant(true as const),
  },
  { requiredKeys: ['degree', 'beats'] },
);

test('what is written is read back as it was', () =>
  fc.assert(
    fc.property(fc.array(step, { minLength: 1, maxLength: 12 }), (steps) => {
      // Nothing to slide to after the last note.
      const pattern = steps.map(({ slide, ...s }, i) => (slide && i < steps.length - 1 ? { ...s, slide } : s));
      expect(parsePattern(patternText(pattern))).toEqual(pattern);
    }),
    { seed: 4 },
  ));

test('a step for every semitone, an octave being seven degrees', () => {
  for (let semitones = -24; semitones <= 36; semitones++) {
    expect(stepSemitones(stepAt(semitones, 1))).toBe(semitones);
    expect(stepAt(semitones + 12, 1).degree).toBe(stepAt(semitones, 1).degree + 7);
  }
  // The names of the degrees over C by another library: a lowered third is Eb, a raised fourth F#.
  const names = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'];
  names.forEach((name, semitones) => {
    const { degree, alter = 0 } = stepAt(semitones, 1);
    expect(Note.get(name)).toMatchObject({ step: degree - 1, alt: alter });
  });
});

test.each<[string, string, 'up' | 'down' | 'both']>([
  ['top-down arpeggio', '8 5 3 1', 'down'],
  ['five notes up and down', '1 2 3 4 5 4 3 2 1', 'both'],
  ['a scale up', '1 2 3 4 5', 'up'],
  ['an octave leap and a slide down', '1 8~1', 'down'],
  ['a slide up and down', '1~8~1', 'up'],
  ['one note', '1 1 1', 'both'],
])('%s (%s) goes %s', (_, text, way) => expect(directionOf({ steps: parsePattern(text) })).toBe(way));

test('span and length: an octave and a fifth in quavers at crotchet = 90', () => {
  const steps = parsePattern('1 3 5 8 10 12 10 8 5 3 1:2', 0.5);
  expect(patternSpan({ steps })).toEqual({ bottom: 0, top: 19 });
  expect(patternSeconds({ steps }, 90)).toBeCloseTo((10 * 0.5 + 2) * (60 / 90), 6);
});

test.each([
  ['', /at least one/],
  ['1 2 x', /“x” is not a degree/],
  ['1 ## 3', /not a degree/],
  ['1 3:', /not a degree/],
])('what is no pattern (%s) is told so, with advice', (text, words) => {
  expect(() => parsePattern(text)).toThrow(PatternError);
  expect(() => parsePattern(text)).toThrow(words);
});

test('a tune’s tonic has its last note’s name and lies at or under its lowest note, within an octave', () => {
  expect(likelyTonic([60, 64, 67, 72])).toBe(60);
  expect(likelyTonic([67, 64, 60])).toBe(60);
  expect(likelyTonic([59, 62, 60])).toBe(48);
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 30, max: 90 }), { minLength: 1, maxLength: 20 }), (notes) => {
      const tonic = likelyTonic(notes);
      const lowest = Math.min(...notes);
      expect((notes[notes.length - 1] - tonic) % 12).toBe(0);
      expect(tonic <= lowest && tonic > lowest - 12).toBe(true);
    }),
    { seed: 5 },
  );
});
