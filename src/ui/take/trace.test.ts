import fc from 'fast-check';
import { ladderScale } from '../ladder/scale';
import { curveOf, secondsAt, spanOf, strokeCurve, xAt } from './trace';

type Line = [number, number][];

/** A pen that writes down its lines: each from where it was set down. */
function recorder() {
  const strokes: { colour: string; lines: Line[] }[] = [];
  let lines: Line[] = [];
  const pen = {
    strokeStyle: '',
    beginPath: () => void (lines = []),
    moveTo: (x: number, y: number) => void lines.push([[x, y]]),
    lineTo: (x: number, y: number) => void lines[lines.length - 1].push([x, y]),
    stroke: () => void strokes.push({ colour: pen.strokeStyle, lines }),
  };
  return { pen: pen as unknown as CanvasRenderingContext2D, strokes, all: () => strokes.flatMap((s) => s.lines) };
}

const HOP_S = 0.005;
const scale = ladderScale(40, 80, 410);
const time = { fromS: 0, toS: 6, width: 600 };
const pixels = (midi: number[], i: number): [number, number] => [xAt(time, i * HOP_S), scale.y(midi[i])];

/** Sung or silent, gliding or leaping. */
const curves = fc.array(fc.oneof({ weight: 6, arbitrary: fc.double({ min: -0.1, max: 0.1, noNaN: true }) }, fc.constantFrom(3, -4, 0)), {
  minLength: 5,
  maxLength: 400,
});
const sung = (steps: number[]) => {
  let at = 60;
  return steps.map((s) => (s === 0 ? 0 : (at = Math.min(78, Math.max(42, at + s)))));
};

test.each([true, false])('all that is sung is drawn, nothing where it is quiet or leaps (in colours: %s)', (coloured) =>
  fc.assert(
    fc.property(curves, (steps) => {
      const midi = sung(steps);
      const { pen, all } = recorder();
      const head = coloured ? midi.map((_, i) => (i % 50 < 25 ? i / midi.length : NaN)) : undefined;
      strokeCurve(pen, { startS: 0, hopS: HOP_S, midi, head }, time, scale, 4, 'grey');
      const drawn = all();
      for (const line of drawn)
        for (let k = 1; k < line.length; k++) {
          // A line goes on by a few values at most, and never over a leap.
          expect(line[k][0] - line[k - 1][0]).toBeLessThan(6);
          expect(Math.abs(line[k][1] - line[k - 1][1])).toBeLessThan(1.2 * 4 * scale.rung);
        }
      midi.slice(0, -1).forEach((m, i) => {
        if (!(m > 0)) return;
        const [x, y] = pixels(midi, i);
        const near = drawn.some((line) => line.some(([lx, ly]) => Math.abs(lx - x) <= 4 && Math.abs(ly - y) <= 0.5 * scale.rung));
        expect([i, near]).toEqual([i, true]);
      });
    }),
    { numRuns: 200, seed: 3 },
  ),
);

test('what is out of view costs nothing, and a long view no more strokes than it has pixels', () => {
  const midi = Array.from({ length: 60_000 }, (_, i) => 60 + 10 * Math.sin(i / 400));
  const { pen, strokes } = recorder();
  strokeCurve(pen, { startS: 0, hopS: HOP_S, midi, head: midi.map((m) => (m - 50) / 20) }, time, scale, 4, 'grey');
  const points = strokes.flatMap((s) => s.lines.flat());
  expect(Math.min(...points.map(([x]) => x))).toBeGreaterThanOrEqual(-1);
  expect(Math.max(...points.map(([x]) => x))).toBeLessThanOrEqual(601);
  const whole = recorder();
  strokeCurve(whole.pen, { startS: 0, hopS: HOP_S, midi, head: midi }, { fromS: 0, toS: 300, width: 600 }, scale, 4, 'grey');
  expect(whole.strokes.length).toBeLessThan(600);
});

test('colour where the register is known, plain where it isn’t', () => {
  const midi = Array.from({ length: 40 }, () => 60);
  const { pen, strokes } = recorder();
  strokeCurve(pen, { startS: 0, hopS: HOP_S, midi, head: midi.map((_, i) => (i < 20 ? NaN : 1)) }, time, scale, 4, 'grey');
  const colours = strokes.map((s) => s.colour);
  expect(colours[0]).toBe('grey');
  expect(colours.at(-1)).toMatch(/^rgb/);
});

test('time is read back from the picture', () =>
  fc.assert(
    fc.property(fc.double({ min: 0, max: 500, noNaN: true }), fc.double({ min: 0.5, max: 90, noNaN: true }), (fromS, lastsS) => {
      const t = { fromS, toS: fromS + lastsS, width: 700 };
      expect(secondsAt(t, xAt(t, fromS + 0.3 * lastsS))).toBeCloseTo(fromS + 0.3 * lastsS, 6);
    }),
  ));

test('the ramp spans what the take spans, and a take of one colour is one colour', () => {
  const trace = { hopS: HOP_S, midi: [60, 60, 60, 0, 60], head: [-3, -1, 1, 99, 3] } as unknown as Parameters<typeof curveOf>[0];
  const head = Array.from(curveOf(trace).head!);
  // Silence has no say in it.
  expect(head[0]).toBeCloseTo(-0.125, 2);
  expect(head[4]).toBeCloseTo(1.125, 2);
  const flat = spanOf([0.4, 0.5, 0.6]);
  expect((0.6 - flat.from) / flat.span - (0.4 - flat.from) / flat.span).toBeLessThan(0.2);
});
