import { sing } from '../sim/sing';
import { typicalProfile } from '../sim/typical';
import { CrossingStyle } from '../sim/profile';
import { analyseTake } from '../take/analyse';
import { TakeFindings } from '../take/types';
import { succeeded, Wanted } from './success';

/** An octave's slide across the change of a simulated mezzo, sung in a style. */
function siren(style: CrossingStyle, seed: number): TakeFindings {
  const profile = { ...typicalProfile('mezzo', style), lowMidi: 60, highMidi: 76 };
  return analyseTake(sing(profile, { kind: 'siren', legS: 3 }, { seed, sampleRate: 22050, snrDb: 50 }).pcm, 'siren').findings;
}
const octave = (measure: Wanted['measure']): Wanted => ({ measure, lowMidi: 62, highMidi: 74 });

test('a blend crosses and blends; a flip does neither; a toggle crosses but does not blend', () => {
  const [blend, flip, toggle] = (['blend', 'flip', 'toggle'] as const).map((style) => siren(style, 3));
  expect([succeeded(octave('crosses'), blend), succeeded(octave('blends'), blend)]).toEqual([true, true]);
  expect([succeeded(octave('crosses'), flip), succeeded(octave('blends'), flip)]).toEqual([false, false]);
  expect([succeeded(octave('crosses'), toggle), succeeded(octave('blends'), toggle)]).toEqual([true, false]);
  // What was not reached was not done; what can't be used tells nothing.
  expect(succeeded({ measure: 'crosses', lowMidi: 62, highMidi: 82 }, blend)).toBe(false);
  expect(succeeded(octave('crosses'), { ...blend, quality: { ...blend.quality, usable: false } })).toBeNull();
});

test('notes in tune, held, even and softer going up, by their figures', () => {
  const base = siren('blend', 3);
  const note = (midi: number, cents: number, more = {}) => ({
    startS: 0,
    endS: 2,
    midi,
    cents,
    onsetS: 0,
    driftCents: 10,
    vibrato: null,
    unrestCents: 5,
    ...more,
  });
  const sung = (notes: TakeFindings['notes']) => ({ ...base, pattern: null, notes });
  expect(succeeded(octave('in-tune'), sung([60, 62, 64, 65, 67].map((m) => note(m, m === 67 ? 80 : 20))))).toBe(true);
  expect(succeeded(octave('in-tune'), sung([60, 62, 64].map((m) => note(m, 60))))).toBe(false);
  expect(succeeded(octave('holds'), sung([note(64, 10)]))).toBe(true);
  expect(succeeded(octave('holds'), sung([note(64, 10, { driftCents: -90 })]))).toBe(false);
  expect(succeeded(octave('holds'), sung([note(64, 10, { endS: 0.4 })]))).toBeNull();
  const levels = (of: number[]) => ({
    ...base,
    profile: of.map((levelDb, i) => ({ midi: 62 + 2 * i, seconds: 1, levelDb, clarity: 1, jitterCents: 5, head: 0 })),
  });
  expect(succeeded(octave('even'), levels([-20, -19, -18, -17]))).toBe(true);
  expect(succeeded(octave('even'), levels([-20, -11, -18, -17]))).toBe(false);
  expect(succeeded(octave('softer-up'), levels([-10, -14, -18]))).toBe(true);
  expect(succeeded(octave('softer-up'), levels([-18, -14, -10]))).toBe(false);
});
