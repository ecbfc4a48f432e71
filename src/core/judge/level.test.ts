import { exerciseById } from '../exercise/shelf';
import { renderKey } from '../exercise/render';
import type { Trace } from '../take/types';
import { faded, jumpedOut, notSofter } from './level';
import { madeHearing, madeTake } from './made-trace';
import type { Asked } from './types';

const FIVE = exerciseById('five-note-ah');
const askedOf = (keys: readonly number[], more: Partial<Asked['exercise']> = {}): Asked => ({
  exercise: { ...FIVE, ...more },
  sound: 'ah',
  keys,
  tempo: 90,
});

/** Keys sung as asked, but for how loud they are at a moment (seconds) and a pitch, dB over the usual. */
function sung(asked: Asked, louder: (t: number, midi: number) => number) {
  const { trace } = madeTake(asked.keys.map((k) => renderKey(asked.exercise, k, asked.tempo)));
  const levelDb = trace.levelDb.map((db, i) => (trace.midi[i] > 0 ? db + louder(i * trace.hopS, trace.midi[i]) : db));
  const made: Trace = { ...trace, levelDb };
  return { ...madeHearing(asked, made), long: trace.midi.length * trace.hopS };
}
const ends = (asked: Asked) => {
  const { keys } = sung(asked, () => 0);
  return keys.map((k) => k.endS);
};

describe('fading', () => {
  const one = askedOf([55]);
  /** Softer and softer from half way to the end. */
  const fades = (by: number, from: number, to: number) => (t: number) => (t < from ? 0 : (-by * (t - from)) / (to - from));

  test('a key that ends far softer than the same notes were earlier fades, and by how much is told', () => {
    const [end] = ends(one);
    const { keys, hearing } = sung(one, fades(24, end / 2, end));
    expect(faded.look(keys[0], hearing)).toMatchObject({ midi: 55, by: expect.any(Number) });
    expect(faded.look(keys[0], hearing)!.by).toBeGreaterThan(10);
  });

  test('as loud throughout, a little softer at the end, or louder, it doesn’t', () => {
    const [end] = ends(one);
    for (const by of [0, 6, -10]) {
      const { keys, hearing } = sung(one, fades(by, end / 2, end));
      expect(faded.look(keys[0], hearing)).toBeNull();
    }
  });

  test('a voice is softer low down by nature: the top is no measure of the bottom', () => {
    // 7 dB an octave (common practice, no source), over a pattern that ends an octave under where it began.
    const falling = askedOf([55], { steps: [8, 7, 6, 5, 4, 3, 2, 1].map((degree) => ({ degree, beats: 1 })) });
    const { keys, hearing } = sung(falling, (_, midi) => 0.6 * (midi - 67));
    expect(faded.look(keys[0], hearing)).toBeNull();
  });

  test('letting the last note go is no fading', () => {
    const [end] = ends(one);
    const { keys, hearing } = sung(one, (t) => (t > end - 0.08 ? -30 : 0));
    expect(faded.look(keys[0], hearing)).toBeNull();
  });
});

describe('a note that jumps out', () => {
  const even = askedOf([55], { measure: 'even' });
  const top = 62;
  const looked = (by: number, asked = even) => {
    const { keys, hearing } = sung(asked, (_, midi) => (Math.round(midi) === top ? by : 0));
    return jumpedOut.look(keys[0], hearing);
  };

  test('is one that lies far off the line through the others, louder or softer', () => {
    expect(looked(20)).toMatchObject({ midi: top });
    expect(looked(20)!.by).toBeGreaterThan(10);
    expect(looked(-20)).toMatchObject({ midi: top });
    expect(looked(-20)!.by).toBeLessThan(-10);
  });

  test('is none where a voice grows evenly, or a little unevenly', () => {
    expect(looked(4)).toBeNull();
    const { keys, hearing } = sung(even, (_, midi) => 1.5 * (midi - 55));
    expect(jumpedOut.look(keys[0], hearing)).toBeNull();
  });

  test('is asked for only where evenness is what an exercise measures', () => {
    expect([even, askedOf([55], { measure: 'crosses' })].map((asked) => jumpedOut.applies!(sung(asked, () => 0).hearing))).toEqual([
      true,
      false,
    ]);
  });
});

describe('softer upward', () => {
  const asked = askedOf([55], { measure: 'softer-up' });
  const slope = (perSt: number) => {
    const { keys, hearing } = sung(asked, (_, midi) => perSt * (midi - 55));
    return notSofter.look(keys[0], hearing);
  };

  test('a voice that grows as voices do at one effort is not softer; one that stays, or falls off, is', () => {
    expect(slope(1)?.by).toBeCloseTo(1, 1);
    for (const perSt of [0.2, 0, -1]) expect(slope(perSt)).toBeNull();
  });

  test('is asked for only where an exercise is to be', () => {
    expect(notSofter.applies!(sung(asked, () => 0).hearing)).toBe(true);
    expect(notSofter.applies!(sung(askedOf([55]), () => 0).hearing)).toBe(false);
  });
});
