import { AGES, BY_AGE, CHANGING_SAYS } from './ages';

const minors = AGES.filter((age) => BY_AGE[age].minor);

test('ages stand in their order, and whoever is under eighteen is a minor', () => {
  expect(minors).toEqual(['under-9', '9-12', '13-15', '16-17']);
  expect(AGES.slice(minors.length)).toEqual(['adult', 'older']);
});

// Common practice, no source.
test('the younger, the shorter; adults are not limited by their age', () => {
  const minutes = AGES.map((age) => BY_AGE[age].mostMinutes);
  expect([...minutes].sort((a, b) => a - b)).toEqual(minutes);
  for (const age of minors) expect(BY_AGE[age].mostMinutes).toBeLessThanOrEqual(25);
  for (const age of ['adult', 'older'] as const) expect(BY_AGE[age].mostMinutes).toBe(Infinity);
});

test('only small children have no straw and stay in the comfortable band by their age alone', () => {
  expect(AGES.filter((age) => BY_AGE[age].noStraw)).toEqual(['under-9']);
  expect(AGES.filter((age) => BY_AGE[age].band)).toEqual(['under-9']);
});

test('an older voice works slower and warms up longer, nobody else', () => {
  expect(AGES.filter((age) => BY_AGE[age].pace !== undefined || BY_AGE[age].warmUp !== undefined)).toEqual(['older']);
  expect(BY_AGE.older.pace).toBeLessThan(1);
  expect(BY_AGE.older.warmUp).toBeGreaterThan(1);
});

test('every voice that is treated otherwise is told so, and a young one never that it should push', () => {
  expect(AGES.filter((age) => BY_AGE[age].says === null)).toEqual(['adult']);
  for (const age of minors) expect(BY_AGE[age].says).toMatch(/play|no range pushing/);
  expect(CHANGING_SAYS).toMatch(/comfortable band.*three weeks.*Cracks belong to it/);
});
