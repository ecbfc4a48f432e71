import fc from 'fast-check';
import { Candidates, MAX_CANDIDATES } from './frame';
import { createPath } from './path';

interface Candidate {
  hz: number;
  clarity: number;
  comb: number;
}
interface Frame {
  candidates: Candidate[];
  levelDb: number;
  fresh: number;
}
const GATE_DB = -60;

function candidatesOf({ candidates, levelDb, fresh }: Frame): Candidates {
  const of = (value: (c: Candidate) => number) =>
    Float64Array.from({ length: MAX_CANDIDATES }, (_, i) => (candidates[i] ? value(candidates[i]) : 0));
  return {
    count: candidates.length,
    hz: of((c) => c.hz),
    octaves: of((c) => Math.log2(c.hz)),
    clarity: of((c) => c.clarity),
    comb: of((c) => c.comb),
    levelDb,
    fresh,
  } as unknown as Candidates;
}
const pathOf = (frames: readonly Frame[]): number[] => {
  const path = createPath(frames.length);
  for (const frame of frames) path.push(candidatesOf(frame), GATE_DB);
  const hz = new Float32Array(frames.length);
  path.traceback(hz, new Float32Array(frames.length));
  return [...hz];
};

/** What a choice through all frames costs, written down anew from what a path is to weigh; a choice is a candidate, or none. */
function costOf(frames: readonly Frame[], choice: readonly (Candidate | null)[]): number {
  return choice.reduce((sum, now, f) => {
    const { levelDb, fresh } = frames[f];
    const before = f > 0 ? choice[f - 1] : undefined;
    const own = now ? 1 - now.clarity + 0.45 * (1 - now.comb) + (levelDb < GATE_DB ? 0.45 : 0) + 0.4 * Math.max(0, 1 - fresh / 0.3) : 0.56;
    const move =
      before === undefined
        ? 0
        : (now === null) !== (before === null)
          ? 0.22
          : now && before
            ? Math.min(0.8, 1.3 * Math.abs(Math.log2(now.hz / before.hz)))
            : 0;
    return sum + own + move;
  }, 0);
}

const Unit = fc.double({ min: 0, max: 1, noNaN: true });
const Drawn = fc.record({
  candidates: fc.array(fc.record({ hz: fc.double({ min: 80, max: 900, noNaN: true }), clarity: Unit, comb: Unit }), { maxLength: 3 }),
  levelDb: fc.double({ min: -80, max: -10, noNaN: true }),
  fresh: Unit,
});

test('the path that is found is the cheapest of all there are', () => {
  fc.assert(
    fc.property(fc.array(Drawn, { minLength: 1, maxLength: 5 }), (frames) => {
      let choices: (Candidate | null)[][] = [[]];
      for (const { candidates } of frames) choices = choices.flatMap((way) => [null, ...candidates].map((c) => [...way, c]));
      const least = Math.min(...choices.map((way) => costOf(frames, way)));
      const found = pathOf(frames).map((hz, f) => (hz === 0 ? null : frames[f].candidates.find((c) => Math.fround(c.hz) === hz)!));
      expect(costOf(frames, found)).toBeCloseTo(least, 5);
    }),
    { numRuns: 300 },
  );
});

const tone = (hz: number, clarity = 0.95): Candidate => ({ hz, clarity, comb: 0.9 });
const heard = (...candidates: Candidate[]): Frame => ({ candidates, levelDb: -20, fresh: 1 });

test('one frame in which the octave is clearer doesn’t carry the pitch away', () => {
  const frames = Array.from({ length: 11 }, (_, f) => heard(tone(220, f === 5 ? 0.8 : 0.95), tone(440, f === 5 ? 0.99 : 0.6)));
  expect(pathOf(frames)).toEqual(Array(11).fill(220));
});

test('a voice that truly leaps is followed, at once', () => {
  const frames = Array.from({ length: 20 }, (_, f) => heard(tone(f < 10 ? 220 : 330)));
  expect(pathOf(frames)).toEqual(frames.map((f) => f.candidates[0].hz));
});

test('soft noise, and what a room still holds, are no voice; a soft clear tone is one', () => {
  const all = (frame: Frame) => pathOf(Array.from({ length: 10 }, () => frame))[9];
  expect(all({ candidates: [tone(220, 0.4)], levelDb: -20, fresh: 1 })).toBe(0);
  expect(all({ candidates: [tone(220, 0.8)], levelDb: -70, fresh: 1 })).toBe(0);
  expect(all({ candidates: [tone(220, 0.8)], levelDb: -20, fresh: 0.02 })).toBe(0);
  expect(all({ candidates: [tone(220, 0.98)], levelDb: -70, fresh: 1 })).toBe(220);
});

test('a live view that remembers a few frames decides as one that remembers all', () => {
  fc.assert(
    fc.property(fc.array(Drawn, { minLength: 12, maxLength: 40 }), fc.nat(8), (frames, lag) => {
      const [few, all] = [createPath(10), createPath(frames.length)];
      for (const frame of frames) {
        few.push(candidatesOf(frame), GATE_DB);
        all.push(candidatesOf(frame), GATE_DB);
      }
      expect(few.decide(lag)).toEqual(all.decide(lag));
    }),
  );
});
