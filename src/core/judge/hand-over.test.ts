import type { NoteProfile } from '../take/types';
import { colourSigns, handOver } from './hand-over';
import type { Audible } from './sounds';

const CHANGE = 66;
const OPEN: Audible = { colour: true, closed: false, consonants: false };
const CLOSED: Audible = { ...OPEN, closed: true };
const STRAW: Audible = { ...OPEN, colour: false };

/** A voice whose harmonics fall by so much more, that grows by so much with every semitone, and has so much more first harmonic above the change. */
const sung = ({ slope = 0, level = 0, first = 0, from = 60, to = 72, seconds = 0.5 } = {}): NoteProfile[] =>
  Array.from({ length: to - from + 1 }, (_, i) => ({
    midi: from + i,
    seconds,
    levelDb: -20 + level * i,
    clarity: 1,
    jitterCents: 2,
    head: 0,
    slopeDb: 10 + slope * i,
    firstDb: from + i > CHANGE ? first : 0,
  }));

test('signs are slopes over all notes and a difference across the change', () => {
  const signs = colourSigns(sung({ slope: 0.3, level: -0.2, first: 6 }), CHANGE)!;
  expect(signs.slopePerSt).toBeCloseTo(0.3, 9);
  expect(signs.levelPerSt).toBeCloseTo(-0.2, 9);
  expect(signs.first).toBeCloseTo(6, 9);
});

test('a note sung long counts no more than one of a second, one without colour not at all', () => {
  const notes = sung({ first: 6 });
  const long = notes.map((n) => (n.midi === 72 ? { ...n, seconds: 60, firstDb: 0 } : n));
  const second = notes.map((n) => (n.midi === 72 ? { ...n, seconds: 1, firstDb: 0 } : n));
  expect(colourSigns(long, CHANGE)).toEqual(colourSigns(second, CHANGE));
  const without = [...notes, { ...notes[12], midi: 73, slopeDb: undefined, firstDb: undefined }];
  expect(colourSigns(without, CHANGE)).toEqual(colourSigns(notes, CHANGE));
});

test('nothing is told of colour where one side of the change was hardly sung', () => {
  for (const notes of [sung({ to: 67 }), sung({ from: 65 }), sung({ seconds: 0.01 }), []]) {
    expect(colourSigns(notes, CHANGE)).toBeNull();
    expect(handOver(notes, OPEN, CHANGE, null)).toBe('not told');
    // Nor by what is known of the voice: it is never a yes because nothing was looked at.
    expect(handOver(notes, OPEN, CHANGE, true)).toBe('not told');
    // Through a straw colour can't be heard, and isn't asked for.
    expect(handOver(notes, STRAW, CHANGE, null)).toBe('heard');
  }
});

// Common practice, no source: head voice falls off more steeply and lives on its first harmonic; chest carried up grows louder.
const HANDED_OVER = sung({ slope: 0.4, level: -0.1, first: 6 });
const CARRIED = sung({ slope: -0.2, level: 1.2, first: -2 });
const PUSHED = sung({ slope: -0.5, level: 3, first: -4 });
test('on an open vowel a hand-over is heard and chest carried through is; on a closed one only when it is plainer', () => {
  expect(handOver(HANDED_OVER, OPEN, CHANGE, null)).toBe('heard');
  expect(handOver(HANDED_OVER, CLOSED, CHANGE, null)).toBe('heard');
  expect(handOver(CARRIED, OPEN, CHANGE, null)).toBe('carried');
  expect(handOver(CARRIED, CLOSED, CHANGE, null)).toBe('not told');
  expect(handOver(PUSHED, CLOSED, CHANGE, null)).toBe('carried');
});

test('what is known of a voice tips what is hardly told, and overrules nothing plain', () => {
  expect(handOver(HANDED_OVER, OPEN, CHANGE, false)).toBe('heard');
  expect(handOver(PUSHED, OPEN, CHANGE, true)).toBe('carried');
  const hardly = sung({ level: 0.6 });
  expect([false, null, true].map((known) => handOver(hardly, OPEN, CHANGE, known))).toEqual(['carried', 'not told', 'heard']);
});

test('through a straw only plain pushing is told', () => {
  expect(handOver(sung({ level: 0.6 }), STRAW, CHANGE, null)).toBe('heard');
  expect(handOver(sung({ slope: -0.5, level: 4, first: -6 }), STRAW, CHANGE, null)).toBe('carried');
});

test('the more speaks for a hand-over, the more it is heard, and what is known counts on its side', () => {
  const ORDER = ['carried', 'not told', 'heard'];
  for (const audible of [OPEN, CLOSED]) {
    const along = (known: boolean | null) =>
      Array.from({ length: 241 }, (_, i) => ORDER.indexOf(handOver(sung({ level: 8 - 0.05 * i }), audible, CHANGE, known)));
    const [pulls, nothing, hands] = [along(false), along(null), along(true)];
    for (const told of [pulls, nothing, hands]) {
      expect([...told].sort()).toEqual(told);
      // Each answer there is is given somewhere.
      expect(new Set(told).size).toBe(3);
    }
    nothing.forEach((told, i) => expect([pulls[i] <= told, told <= hands[i]]).toEqual([true, true]));
    expect(pulls).not.toEqual(nothing);
    expect(hands).not.toEqual(nothing);
  }
});
