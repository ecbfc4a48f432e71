import { HOP_S } from '../voice/types';
import { sirenLegs } from './legs';
import { isSlid, taskMisfit } from './task-check';

/** A contour of pieces: held notes and slides, each so many seconds, from one pitch to another; constructed. */
const contour = (...pieces: [from: number, to: number, seconds: number][]) =>
  Float64Array.from(
    [NaN, NaN].concat(
      pieces.flatMap(([from, to, seconds]) => {
        const frames = Math.round(seconds / HOP_S);
        return Array.from({ length: frames }, (_, i) => from + ((to - from) * i) / frames);
      }),
      [NaN, NaN],
    ),
  );

const steps = (degrees: number[], seconds: number) => contour(...degrees.map((d): [number, number, number] => [55 + d, 55 + d, seconds]));

test.each<[string, Float64Array, boolean]>([
  ['a siren', contour([50, 74, 2.5], [74, 50, 2.5]), true],
  ['a slow siren', contour([50, 62, 3], [62, 50, 3]), true],
  ['a leap of an octave, held, and slid down', contour([54, 54, 1], [66, 66, 0.8], [66, 54, 1.5], [54, 54, 1]), true],
  ['nine notes', steps([0, 2, 4, 5, 7, 9, 11, 12, 14, 12, 11, 9, 7, 5, 4, 2, 0], 0.3), false],
  ['an arpeggio over an octave and a fifth', steps([0, 4, 7, 12, 16, 19, 16, 12, 7, 4, 0], 0.25), false],
  ['a slide over a third', contour([50, 54, 1], [54, 50, 1]), false],
  ['nothing', contour(), false],
])('%s: slid or not', (_, sung, slid) => {
  const legs = sirenLegs(sung);
  expect(isSlid(sung, legs)).toBe(slid);
  expect(taskMisfit('siren', sung, legs, [], null, null)).toHaveLength(slid ? 0 : 1);
});

test('what was sung instead is said in words', () => {
  const of = (sung: Float64Array) => taskMisfit('siren', sung, sirenLegs(sung), [], null, null)[0];
  expect(of(steps([0, 2, 4, 5, 7, 9, 11, 12], 0.4))).toMatch(/separate notes/);
  expect(of(contour([50, 54, 1], [54, 50, 1]))).toMatch(/No slide of a fifth/);
  const siren = contour([50, 74, 2.5], [74, 50, 2.5]);
  expect(taskMisfit('scale', siren, sirenLegs(siren), [], null, null)[0]).toMatch(/a slide, not a scale/);
});
