import { mustBeHardToGuess } from './passwords';

const refused = (password: string, about: string[] = []) => {
  try {
    mustBeHardToGuess(password, about);
    return false;
  } catch {
    return true;
  }
};

// The first are among the best known leaked passwords (from memory of published lists), made long enough.
test.each(['password1234', 'letmein12345', 'iloveyou2024', 'qwertyuiop12', '123456789012', 'abcabcabcabc', 'Passw0rd!2026'])(
  '%s is refused',
  (password) => expect(refused(password)).toBe(true),
);

test('words that don’t belong together are taken, unless they are known of the person', () => {
  expect(refused('otter barge whistle')).toBe(false);
  expect(refused('maritoake2026')).toBe(false);
  expect(refused('maritoake2026', ['marit.oake@barge.example', 'Marit Oake'])).toBe(true);
});
