import { scorePitch } from './measures';

test('a worked case: ten frames counted by hand', () => {
  const up = (cents: number) => 440 * 2 ** (cents / 1200);
  //             in tune, 8 c,   40 c,   60 c,   octave,  missed, quiet, alarm, quiet, two octaves under
  const truth = [440, 440, 440, 440, 440, 440, 0, 0, 0, 440];
  const heard = [440, up(8), up(40), up(60), 880, 0, 0, 300, 0, 110];
  expect(scorePitch(truth, heard)).toEqual({
    pitch50: 3 / 7,
    pitch10: 2 / 7,
    octave: 2 / 7,
    recall: 6 / 7,
    falseAlarm: 1 / 3,
    overall: 5 / 10,
  });
});
