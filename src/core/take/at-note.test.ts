import { directionAt, passageAt } from './at-note';

const HOP_S = 0.01;
/** Up from C4 to C5 in two seconds, a second held there, down in one; half a second of silence before. */
const siren = {
  hopS: HOP_S,
  midi: [
    ...Array<number>(50).fill(0),
    ...Array.from({ length: 200 }, (_, i) => 60 + (12 * i) / 200),
    ...Array<number>(100).fill(72),
    ...Array.from({ length: 100 }, (_, i) => 72 - (12 * i) / 100),
  ],
};

test('a note is found where it is passed going the same way, else where it is at all', () => {
  const up = passageAt(siren, 66, 'up')!;
  // Passed in a sixth of a second about its middle.
  expect((up.fromS + up.toS) / 2).toBeCloseTo(1.5, 1);
  expect(up.toS - up.fromS).toBeCloseTo(2 / 12, 1);
  const down = passageAt(siren, 66, 'down')!;
  expect((down.fromS + down.toS) / 2).toBeCloseTo(4, 1);
  // Nobody asks which way: the longer one.
  expect(passageAt(siren, 66)).toEqual(up);
  expect(passageAt(siren, 72, 'down')!.toS).toBeGreaterThan(3);
  expect(passageAt(siren, 80)).toBeNull();
  const risingOnly = { ...siren, midi: siren.midi.slice(0, 250) };
  expect(passageAt(risingOnly, 66, 'down')).toEqual(up);
});

test('which way it goes; a short hole is no end of a note', () => {
  expect([1.5, 3, 4].map((s) => directionAt(siren, s))).toEqual(['up', null, 'down']);
  expect(directionAt(siren, 0.1)).toBeNull();
  const held = { hopS: HOP_S, midi: Array.from({ length: 100 }, (_, i) => (i % 30 < 3 ? 0 : 64)) };
  expect(passageAt(held, 64)).toEqual({ fromS: 0.03, toS: 1 });
});
