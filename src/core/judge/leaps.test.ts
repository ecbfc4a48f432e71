import type { KeyJudged, NoteJudged } from './types';
import { doubtedLeap, overshotBy } from './leaps';

const HOP_S = 0.01;

/** A note of a second at G4, stepped to from below, whose first moments are so far off. */
const arriving = (off: (t: number) => number) => Array.from({ length: 100 }, (_, i) => 67 + off(i * HOP_S));
const NOTE = { startS: 0, endS: 1, sungMidi: 67 };

describe('overshooting a step', () => {
  // A flip of three semitones overshoots its note by half of them and settles within a tenth of a second (common practice, no source).
  const flips = (t: number) => 1.5 * Math.exp(-t / 0.085);

  test('the way a step went it is told, with how far', () => {
    expect(overshotBy(NOTE, 1, arriving(flips), HOP_S)).toBeCloseTo(1.5, 1);
    expect(
      overshotBy(
        NOTE,
        -1,
        arriving((t) => -flips(t)),
        HOP_S,
      ),
    ).toBeCloseTo(1.5, 1);
  });

  test('undershooting, a small overshoot, vibrato and a clean step are none', () => {
    for (const off of [
      (t: number) => -flips(t),
      (t: number) => flips(t) / 3,
      (t: number) => 0.7 * Math.sin(2 * Math.PI * 5.5 * t),
      () => 0,
    ])
      expect(overshotBy(NOTE, 1, arriving(off), HOP_S)).toBe(0);
  });

  test('what comes once the note has settled is no overshoot, nor an octave that was misread', () => {
    expect(
      overshotBy(
        NOTE,
        1,
        arriving((t) => (t > 0.06 && t < 0.15 ? 1.5 : 0)),
        HOP_S,
      ),
    ).toBe(0);
    expect(
      overshotBy(
        NOTE,
        1,
        arriving((t) => (t < 0.1 ? 12 : 0)),
        HOP_S,
      ),
    ).toBe(0);
  });

  test('a note too short to settle, or sung again, tells nothing', () => {
    expect(overshotBy({ ...NOTE, endS: 0.2 }, 1, arriving(flips), HOP_S)).toBe(0);
    expect(overshotBy(NOTE, 0, arriving(flips), HOP_S)).toBe(0);
  });

  test('two frames that stray are a click, not a flip', () => {
    expect(
      overshotBy(
        NOTE,
        1,
        arriving((t) => (t < 0.015 ? 3 : 0)),
        HOP_S,
      ),
    ).toBe(0);
  });
});

describe('a leap in one key of several', () => {
  const notes = [60, 64, 67].map((midi) => ({ midi }) as NoteJudged);
  type Key = Pick<KeyJudged, 'because' | 'notes'>;
  const clean: Key = { because: null, notes };
  const leaps = (by?: number): Key => ({ because: { fault: 'leapt', midi: 64, by }, notes });

  test('is doubted where it is small and two others pass there without', () => {
    expect(doubtedLeap([clean, leaps(1.8), clean])).toBe(1);
    expect(doubtedLeap([leaps(2.4), clean, clean, clean])).toBe(0);
  });

  test('counts where it is plain, where how far isn’t known, or where another key leaps as well', () => {
    expect(doubtedLeap([clean, leaps(2.5), clean])).toBe(-1);
    expect(doubtedLeap([clean, leaps(), clean])).toBe(-1);
    expect(doubtedLeap([leaps(1.8), leaps(1.8), clean, clean])).toBe(-1);
  });

  test('counts where fewer than two others pass: one key, one that was left out, or that lies beside it', () => {
    expect(doubtedLeap([leaps(1.8)])).toBe(-1);
    expect(doubtedLeap([leaps(1.8), clean])).toBe(-1);
    expect(doubtedLeap([leaps(1.8), clean, { because: { fault: 'not-sung' }, notes }])).toBe(-1);
    expect(doubtedLeap([leaps(1.8), clean, { because: null, notes: notes.slice(1) }])).toBe(-1);
    // One that fails for another reason passes there all the same.
    expect(doubtedLeap([leaps(1.8), clean, { because: { fault: 'faded' }, notes }])).toBe(0);
  });
});
