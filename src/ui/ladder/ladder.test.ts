import { VoiceMap } from '../../core/map/types';
import { rampColour } from './ramp';
import { ladderRange, ladderScale } from './scale';

/** Relative luminance (WCAG 2.2). */
function luminance(colour: string): number {
  const [r, g, b] = colour.match(/\d+/g)!.map((v) => {
    const c = Number(v) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}

test('the register ramp grows lighter all the way, so that it reads in grey, and its ends stand 3 to 1 apart at least', () => {
  const light = Array.from({ length: 21 }, (_, i) => luminance(rampColour(i / 20)));
  light.slice(1).forEach((l, i) => expect(l).toBeGreaterThan(light[i]));
  expect((light[20] + 0.05) / (light[0] + 0.05)).toBeGreaterThan(3);
  // No step of a tenth is so small that it could not be seen beside its neighbour.
  for (let i = 2; i <= 20; i += 2) expect((light[i] + 0.05) / (light[i - 2] + 0.05)).toBeGreaterThan(1.1);
});

test('beyond its ends the ramp stays at its ends', () => {
  expect(rampColour(-3)).toBe(rampColour(0));
  expect(rampColour(7)).toBe(rampColour(1));
});

test('the ladder puts every note in the middle of its rung, high notes at the top, and reads heights back', () => {
  const scale = ladderScale(48, 72, 500);
  expect(scale.rung).toBe(20);
  expect(scale.y(72)).toBe(10);
  expect(scale.y(48)).toBe(490);
  for (const midi of [48, 55.3, 60, 71.9]) expect(scale.midiAt(scale.y(midi))).toBeCloseTo(midi, 9);
});

test('a ladder shows the whole voice with a margin, two octaves at least, and whatever else must be seen', () => {
  const map = { extreme: { low: { midi: 50.4 }, high: { midi: 79.2 } } } as VoiceMap;
  expect(ladderRange(map, { low: 0, high: 0 })).toEqual({ low: 48, high: 82 });
  expect(ladderRange(map, { low: 0, high: 0 }, [85])).toEqual({ low: 48, high: 87 });
  const small = ladderRange(null, { low: 60, high: 64 });
  expect(small.high - small.low).toBeGreaterThanOrEqual(24);
  expect(small.low).toBeLessThan(58);
});
