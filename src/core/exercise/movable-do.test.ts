import { movableDo } from './movable-do';

const called = (...degrees: number[]) => degrees.map((degree) => movableDo({ degree })).join(' ');

// The syllables as handbooks of solfège have them (from memory); common practice.
test('the major scale begins and ends on do, under it and over it as well', () => {
  expect(called(1, 2, 3, 4, 5, 6, 7, 8)).toBe('do re mi fa sol la ti do');
  expect(called(0, -1, -2, -6, 9, 10, 15)).toBe('ti la sol do re mi do');
});

test('the chromatic scale rises on i and falls on e, re on a', () => {
  const up = [1, 2, 4, 5, 6].map((degree) => movableDo({ degree, alter: 1 }));
  const down = [7, 6, 5, 3, 2].map((degree) => movableDo({ degree, alter: -1 }));
  expect(up.join(' ')).toBe('di ri fi si li');
  expect(down.join(' ')).toBe('te le se me ra');
});

test('a raised or lowered note that is another note of the scale is called what it is', () => {
  expect(movableDo({ degree: 3, alter: 1 })).toBe(movableDo({ degree: 4 }));
  expect(movableDo({ degree: 7, alter: 1 })).toBe(movableDo({ degree: 8 }));
  expect(movableDo({ degree: 4, alter: -1 })).toBe(movableDo({ degree: 3 }));
  expect(movableDo({ degree: 1, alter: -1 })).toBe(movableDo({ degree: 0 }));
});
