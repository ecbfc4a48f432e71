import { easier, feelOf, isSameSet, KINDS, pressureOf, progression, strawsForToday } from './choose';

const [wide, drinking, cocktail, stirrer] = KINDS;
const alone = (straw: (typeof KINDS)[number]) => ({ straws: [straw], depthCm: 0 });

test('if it fights back a straw is added beside it, until it is comfortable (common practice)', () => {
  expect(feelOf(alone(stirrer))).toBe('fights back');
  let set: ReturnType<typeof alone> | { straws: { diameterMm: number; lengthMm: number }[]; depthCm: number } = alone(stirrer);
  for (let i = 0; i < 4 && feelOf(set) === 'fights back'; i++) {
    const next = easier(set)!;
    expect(pressureOf(next.set)).toBeLessThan(pressureOf(set));
    set = next.set;
  }
  expect(feelOf(set)).toBe('comfortable');
  expect(feelOf(alone(drinking))).toBe('comfortable');
});

test('a progression goes from little to much, and today’s set is a comfortable one of it', () => {
  const inventory = [
    { ...cocktail, count: 3 },
    { ...drinking, count: 2 },
    { ...wide, count: 1 },
  ];
  const steps = progression(inventory).map((s) => pressureOf(s));
  expect(steps).toHaveLength(6);
  expect([...steps].sort((a, b) => a - b)).toEqual(steps);
  const today = [0, 1, 2, 99].map((step) => strawsForToday(inventory, step)!);
  for (const set of today) expect(feelOf(set)).toBe('comfortable');
  expect(pressureOf(today[1])).toBeGreaterThan(pressureOf(today[0]));
  expect(strawsForToday([{ ...stirrer, count: 1 }], 0)).toMatchObject({ straws: [{ diameterMm: 2.5 }] });
  expect(strawsForToday([], 0)).toBeNull();
});

test('a set is the same by its straws and its depth, whoever made it', () => {
  const set = { straws: [{ diameterMm: 3.5, lengthMm: 130 }], depthCm: 0 };
  expect(isSameSet(set, { straws: [{ ...set.straws[0] }], depthCm: 0 })).toBe(true);
  for (const other of [
    { ...set, depthCm: 1 },
    { ...set, straws: [...set.straws, ...set.straws] },
    { ...set, straws: [{ diameterMm: 3.5, lengthMm: 200 }] },
    { ...set, straws: [{ diameterMm: 5.5, lengthMm: 130 }] },
  ])
    expect(isSameSet(set, other)).toBe(false);
});
