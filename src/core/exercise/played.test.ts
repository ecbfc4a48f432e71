import fc from 'fast-check';
import type { KeyboardMessage } from '../music/midi-message';
import { melodyPlayed, PlayedNote, withKey } from './played';
import { exerciseOfTune } from './tune';

/** Keys pressed one after another, each so many seconds after the one before, and let go of just before the next. */
function hand(midis: readonly number[], lengthsS: readonly number[], fromS = 10): PlayedNote[] {
  let at = fromS;
  return midis.map((midi, i) => {
    const startS = at;
    at += lengthsS[i];
    return { midi, startS, endS: at - 0.05 };
  });
}
const beatsOf = (played: readonly PlayedNote[]) => melodyPlayed(played)?.notes.map((n) => n.beats);

test('a pattern played evenly is that pattern, at its tempo, whatever the key', () => {
  const fives = hand([57, 59, 61, 62, 64, 62, 61, 59, 57], [0.3, 0.31, 0.29, 0.3, 0.3, 0.3, 0.28, 0.32, 0.6]);
  const tune = melodyPlayed(fives)!;
  expect(tune.tempo).toBe(100);
  expect(beatsOf(fives)).toEqual([0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 0.5, 1]);
  const { steps } = exerciseOfTune(tune.notes, tune.tempo, { id: 'x', name: 'x' });
  expect(steps.map((s) => s.degree)).toEqual([1, 2, 3, 4, 5, 4, 3, 2, 1]);
});

test('however unevenly within a twentieth (trained hands keep to about that; common practice, no source), long and short stay apart', () => {
  const uneven = fc.double({ min: 0.95, max: 1.05, noNaN: true });
  fc.assert(
    fc.property(
      fc.integer({ min: 50, max: 140 }),
      fc.array(fc.tuple(fc.integer({ min: 48, max: 72 }), fc.constantFrom(1, 2, 4), uneven), { minLength: 4, maxLength: 16 }),
      (tempo, notes) => {
        const quaverS = 30 / tempo;
        // Something short sets the beat; what rings longer than a phrase's end would begin anew.
        const lengths = [1, ...notes.map(([, l]) => l)];
        fc.pre(4 * quaverS * 1.1 < 4);
        const played = hand([60, ...notes.map(([m]) => m)], [quaverS, ...notes.map(([, l, u]) => quaverS * l * u)]);
        const beats = beatsOf(played)!;
        expect(beats.slice(0, -1).map((b) => b / beats[0])).toEqual(lengths.slice(0, -1));
      },
    ),
  );
});

test('a chord gives the key and is no note; of what is played at once the upper is the tune; a silence begins anew', () => {
  const chord = [48, 52, 55].map((midi, i) => ({ midi, startS: 1 + 0.01 * i, endS: 2 }));
  const third = hand([60, 64, 60], [0.6, 0.6, 0.6], 2.1);
  expect(melodyPlayed([...chord, ...third])!.notes.map((n) => n.midi)).toEqual([60, 64, 60]);
  // The next key's chord after it: the tune is still the one before.
  expect(melodyPlayed([...chord, ...third, ...chord.map((n) => ({ ...n, startS: n.startS + 2.95, endS: 5 }))])!.notes).toHaveLength(3);
  // A chord that is struck shortly is over when the tune begins with one of its notes, however soon after.
  const struck = [36, 43, 48].map((midi, i) => ({ midi, startS: 1 + 0.005 * i, endS: 1.02 + 0.005 * i }));
  expect(melodyPlayed([...struck, ...hand([48, 52, 55, 48], [0.25, 0.25, 0.25, 0.25], 1.04)])!.notes.map((n) => n.midi)).toEqual([
    48, 52, 55, 48,
  ]);
  // Rolled it is a chord as well, while it is held; legato is a tune, however quick.
  const rolled = [36, 43, 48].map((midi, i) => ({ midi, startS: 1 + 0.12 * i, endS: 1.6 }));
  expect(melodyPlayed([...rolled, ...third])!.notes.map((n) => n.midi)).toEqual([60, 64, 60]);
  const legato = hand([60, 62, 64, 65], [0.12, 0.12, 0.12, 0.12]).map((n) => ({ ...n, endS: n.endS! + 0.09 }));
  expect(melodyPlayed(legato)!.notes.map((n) => n.midi)).toEqual([60, 62, 64, 65]);
  const doubled = third.flatMap((n) => [n, { ...n, midi: n.midi - 12 }]);
  expect(melodyPlayed(doubled)!.notes.map((n) => n.midi)).toEqual([60, 64, 60]);
  expect(melodyPlayed([...third, ...hand([70, 72], [0.5, 0.5], 6)])!.notes.map((n) => n.midi)).toEqual([70, 72]);
  expect(melodyPlayed(chord)).toBeNull();
  expect(melodyPlayed(hand([60], [0.5]))).toBeNull();
  expect(melodyPlayed([])).toBeNull();
});

test('what a keyboard does becomes keys with their lengths; the pedal lengthens none, and long ago is forgotten', () => {
  const does: KeyboardMessage[] = [
    { does: 'press', midi: 60, velocity: 1 },
    { does: 'pedal', down: true },
    { does: 'release', midi: 60 },
    { does: 'press', midi: 60, velocity: 1 },
    { does: 'release', midi: 61 },
  ];
  const notes = does.reduce<readonly PlayedNote[]>((all, message, i) => withKey(all, message, i), []);
  expect(notes).toEqual([
    { midi: 60, startS: 0, endS: 2 },
    { midi: 60, startS: 3, endS: null },
  ]);
  const many = Array.from({ length: 500 }).reduce<readonly PlayedNote[]>((all, _, i) => withKey(all, does[0], i), []);
  expect(many).toHaveLength(128);
  expect(many.at(-1)!.startS).toBe(499);
});
