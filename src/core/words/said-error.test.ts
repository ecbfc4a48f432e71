import { said } from './said';
import { SaidError, saidOf } from './said-error';

test('an error is said as it was put, and its message is the English with plain gaps filled', () => {
  const says = said('“{file}” lasts {minutes} minutes {how}, {missing}.', { file: { own: 'a.wav' }, minutes: 20, how: 'or more' });
  const error = new SaidError(says);
  expect(saidOf(error)).toBe(says);
  expect(error.message).toBe('“a.wav” lasts 20 minutes or more, {missing}.');
  // Somebody's own words are no message, whatever stands in them.
  expect(new SaidError(said('“{file}” is empty.', { file: { own: '{minutes}' } })).message).toBe('“{minutes}” is empty.');
  expect(saidOf(new RangeError('too far'))).toBe('too far');
});
