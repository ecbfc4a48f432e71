import fc from 'fast-check';
import { exerciseById, SHELF } from '../exercise/shelf';
import { renderKey } from '../exercise/render';
import { alignKeys } from './align';
import { Made, madeTake } from './made-trace';
import type { Asked, NoteHeard } from './types';

const askedOf = (id: string, more: Partial<Asked> = {}): Asked => {
  const exercise = exerciseById(id);
  return { exercise, sound: exercise.sounds[0], keys: [55, 56, 57], tempo: exercise.tempo[1], ...more };
};
const laid = ({ exercise, keys, tempo }: Asked) => keys.map((k) => renderKey(exercise, k, tempo));
/** What is asked, as somebody sings it. */
const sing = (asked: Asked, made: Made = {}) => madeTake(laid(asked), made).trace;
const notesOf = (asked: Asked, trace = sing(asked)) => alignKeys(asked, trace).keys.flatMap((k) => k.notes);
/** When each note begins that was asked for, seconds from the beginning of the take. */
function begins(asked: Asked): number[] {
  let at = 0;
  return laid(asked).flatMap((key) => {
    const starts = key.notes.map((n) => at + n.startS);
    at += key.totalS;
    return starts;
  });
}

/** Found within a frame or two: short notes are told by little. */
const NEAR_S = 0.06;
const STEPPED = SHELF.filter((e) => e.steps.every((s) => !s.slide) && new Set(e.steps.map((s) => s.degree)).size > 2);

test.each(STEPPED.map((e) => [e.id]))('%s: every note is found where it was sung, at the pitch it was sung', (id) => {
  const asked = askedOf(id);
  const lateS = 0.2;
  const notes = notesOf(asked, sing(asked, { lateS, higherSt: 0.3 }));
  const at = begins(asked);
  notes.forEach((n, i) => {
    const again = notes[i - 1]?.midi === n.midi;
    // Where a note is sung again nothing tells the one from the other.
    if (!again) expect([n.midi, Math.abs(n.startS - at[i] - lateS) < NEAR_S]).toEqual([n.midi, true]);
    expect(Math.abs(n.sungMidi! - n.midi - 0.3)).toBeLessThan(0.05);
  });
});

test('however late a voice comes in, and in whatever octave it sings, the same notes are found', () => {
  const asked = askedOf('five-note-ah');
  const notes = notesOf(asked);
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 2, noNaN: true }),
      fc.constantFrom(-24, -12, 0, 12),
      fc.double({ min: -0.4, max: 0.4, noNaN: true }),
      (lateS, octave, off) => {
        const trace = sing(asked, { lateS, higherSt: octave + off });
        const { keys, octave: found } = alignKeys(asked, trace);
        // Nothing is neither up nor down.
        expect(found + 0).toBe(octave);
        const heard = keys.flatMap((k) => k.notes);
        expect(heard.map((n) => n.midi)).toEqual(notes.map((n) => n.midi));
        heard.forEach((n, i) => {
          // The shift is found by fiftieths of a second.
          expect(Math.abs(n.startS - notes[i].startS - (lateS - 0.05))).toBeLessThan(NEAR_S);
          expect(Math.abs(n.sungMidi! - n.midi - off)).toBeLessThan(0.05);
        });
      },
    ),
    { numRuns: 40 },
  );
});

test('a key that was left out has no sound, and the keys before it are found all the same', () => {
  const asked = askedOf('five-note-ah');
  const { keys } = alignKeys(asked, sing(asked, { keys: 2 }));
  expect(keys.map((k) => k.tonicMidi)).toEqual([55, 56, 57]);
  expect(keys.slice(0, 2).every((k) => k.notes.every((n) => n.sungMidi !== null && n.soundedS > 0.8 * n.askedS))).toBe(true);
  expect(keys[2].share).toBeLessThan(0.1);
  expect(keys[2].notes.every((n) => n.sungMidi === null)).toBe(true);
});

test('a wrong note is heard as it was sung, and takes none of its neighbours’ time', () => {
  const asked = askedOf('five-note-ah', { keys: [55] });
  const right = notesOf(asked);
  const wrong = notesOf(asked, sing(asked, { mistake: 'wrong note' }));
  const last = right.length - 1;
  expect(wrong[last].sungMidi! - wrong[last].midi).toBeCloseTo(1, 1);
  const before = (notes: NoteHeard[]) => notes.slice(0, last).map((n) => [n.startS, n.soundedS]);
  before(wrong).forEach(([startS, soundedS], i) => {
    expect(Math.abs(startS - before(right)[i][0])).toBeLessThan(NEAR_S);
    expect(Math.abs(soundedS - before(right)[i][1])).toBeLessThan(NEAR_S);
  });
});

test('a silence in the middle is taken from the note it lies in', () => {
  const asked = askedOf('five-note-ah', { keys: [55] });
  const [whole, stopped] = [notesOf(asked), notesOf(asked, sing(asked, { mistake: 'stopped' }))];
  const lost = whole.map((n, i) => n.soundedS - stopped[i].soundedS);
  expect(lost.filter((s) => s > 0.1).length).toBeLessThanOrEqual(2);
  expect(lost.reduce((a, b) => a + b, 0)).toBeGreaterThan(0.25);
  expect(stopped.every((n) => n.sungMidi === null || Math.abs(n.sungMidi - n.midi) < 0.05)).toBe(true);
});

test.each([0.8, 1, 1.26, 1.58])(
  'sung alone at %d times the piano’s pace it is found; with the piano only the piano’s pace counts',
  (pace) => {
    const asked = askedOf('five-note-ah', { keys: [55] });
    const trace = sing({ ...asked, tempo: asked.tempo / pace });
    const own = notesOf({ ...asked, alone: true }, trace);
    own.forEach((n) => expect(Math.abs(n.sungMidi! - n.midi)).toBeLessThan(0.05));
    const long = own.reduce((s, n) => s + n.soundedS, 0);
    expect(long).toBeCloseTo(pace * notesOf(asked).reduce((s, n) => s + n.soundedS, 0), 0);
  },
);

test('a chord of the piano’s before the take, or none, moves nothing: keys are looked for where each began', () => {
  const asked = askedOf('five-note-ah');
  const inTurn = laid(asked).map((_, k, all) => all.slice(0, k).reduce((s, key) => s + key.totalS, 0));
  const { keys } = alignKeys(asked, sing(asked));
  expect(alignKeys({ ...asked, startsS: inTurn }, sing(asked)).keys).toEqual(keys);
});

test('a slide is followed semitone by semitone and settles on no pitch; its ends do', () => {
  const siren = SHELF.find((e) => e.steps[0].slide && e.steps.length === 3)!;
  const asked = askedOf(siren.id, { keys: [57] });
  const [up, down, end] = notesOf(asked);
  expect([up, down].every((n) => n.slide && n.sungMidi === null && n.levelDb !== null)).toBe(true);
  expect(up.endS).toBeCloseTo(down.startS, 5);
  expect(end.slide).toBe(false);
});

test('silence gives keys without sound, never a pitch', () => {
  const asked = askedOf('five-note-ah');
  const trace = sing(asked);
  const { keys, octave } = alignKeys(asked, { ...trace, midi: trace.midi.map(() => 0) });
  expect(octave).toBe(0);
  expect(keys).toHaveLength(3);
  for (const k of keys) expect([k.share, ...k.notes.map((n) => n.sungMidi)]).toEqual([0, ...k.notes.map(() => null)]);
});
