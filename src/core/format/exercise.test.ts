import fc from 'fast-check';
import { SHELF } from '../exercise/shelf';
import { fromExerciseFile, toExerciseFile } from './exercise';
import { MusicFileError } from './music-file';

const ID = '7d7b3b5e-6f0c-4a57-9a53-0d8f0a1f2b3c';

test('every exercise of the shelf can be shared and comes back as it was, as one’s own', () => {
  for (const e of SHELF) expect(fromExerciseFile(toExerciseFile(e), ID)).toEqual({ ...e, id: ID });
});

/** Every place in a value, as paths. */
const places = (value: unknown, path: (string | number)[] = []): (string | number)[][] =>
  value !== null && typeof value === 'object' ? [path, ...Object.entries(value).flatMap(([k, v]) => places(v, [...path, k]))] : [path];

test('a file with anything in the place of anything is read or refused in words, never half', () =>
  fc.assert(
    fc.property(fc.constantFrom(...SHELF), fc.nat(), fc.jsonValue(), (exercise, at, instead) => {
      const file = JSON.parse(toExerciseFile(exercise));
      const path = places(file)[at % places(file).length];
      let holder = { file };
      for (const key of ['file', ...path].slice(0, -1)) holder = holder[key as 'file'];
      Object.assign(holder, { [['file', ...path].at(-1)!]: instead });
      try {
        const read = fromExerciseFile(JSON.stringify(file), ID);
        expect(fromExerciseFile(toExerciseFile(read), ID)).toEqual(read);
      } catch (error) {
        if (!(error instanceof MusicFileError)) throw error;
        expect(error.message.length).toBeGreaterThan(20);
      }
    }),
    { numRuns: 1000, seed: 1 },
  ));

test.each([
  ['no JSON', '<score/>', /not an exercise shared/],
  ['something else', '{"wendel":"bundle"}', /not an exercise shared/],
  ['a later version', toExerciseFile(SHELF[0]).replace('"version": 1', '"version": 2'), /newer version/],
  ['steps that are none', toExerciseFile({ ...SHELF[0], steps: [] }), /steps.*at least one note/],
  ['tempi out of order', toExerciseFile({ ...SHELF[0], tempo: [90, 80, 70] }), /slowest/],
])('%s is refused, and why', (_, text, why) => expect(() => fromExerciseFile(text, ID)).toThrow(why));
