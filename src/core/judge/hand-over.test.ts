import type { NoteProfile } from '../take/types';
import { colourSigns, handOver } from './hand-over';
import type { Audible } from './sounds';

const CHANGE = 66;
const OPEN: Audible = { colour: true, closed: false, consonants: false };
const CLOSED: Audible = { ...OPEN, closed: true };
const STRAW: Audible = { ...OPEN, colour: false };

/**
 * A voice whose harmonics fall by so much more and that grows by so much with every semitone; above the change it has so much more first
 * harmonic, noise (dB) and unrest (times as much).
 */
const sung = ({ slope = 0, level = 0, first = 0, noise = 0, unrest = 1, from = 60, to = 72, seconds = 0.5 } = {}): NoteProfile[] =>
  Array.from({ length: to - from + 1 }, (_, i) => ({
    midi: from + i,
    seconds,
    levelDb: -20 + level * i,
    clarity: 1 - 0.01 * 10 ** ((from + i > CHANGE ? noise : 0) / 10),
    jitterCents: 3 * (from + i > CHANGE ? unrest : 1),
    head: 0,
    slopeDb: 10 + slope * i,
    firstDb: from + i > CHANGE ? first : 0,
  }));

test('signs are slopes over all notes and a difference across the change', () => {
  const signs = colourSigns(sung({ slope: 0.3, level: -0.2, first: 6, noise: 5, unrest: 4 }), CHANGE)!;
  expect(signs.slopePerSt).toBeCloseTo(0.3, 9);
  expect(signs.levelPerSt).toBeCloseTo(-0.2, 9);
  expect(signs.levelAbovePerSt).toBeCloseTo(-0.2, 9);
  expect(signs.first).toBeCloseTo(6, 9);
  expect(signs.noiseDb).toBeCloseTo(5, 6);
  expect(signs.unrest).toBeCloseTo(Math.log(13 / 4), 9);
});

test('what a voice grows by from the change up stands apart from what it grows by in all', () => {
  const bent = sung().map((n) => ({ ...n, levelDb: n.midi < CHANGE ? -20 : -20 + 2 * (n.midi - CHANGE) }));
  const signs = colourSigns(bent, CHANGE)!;
  expect(signs.levelAbovePerSt).toBeGreaterThan(1.8);
  expect(signs.levelPerSt).toBeLessThan(1.2);
  const two = bent.filter((n) => n.midi < CHANGE - 1 || n.midi === 72);
  // Of one note nothing grows.
  expect(colourSigns(two, CHANGE)!.levelAbovePerSt).toBe(0);
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
const CARRIED = sung({ slope: 0.05, level: 1.2, first: -2 });
const PUSHED = sung({ slope: -0.5, level: 3, first: -4 });
test('on an open vowel a hand-over is heard and chest carried through is; on a closed one only when it is plainer', () => {
  expect(handOver(HANDED_OVER, OPEN, CHANGE, null)).toBe('heard');
  expect(handOver(HANDED_OVER, CLOSED, CHANGE, null)).toBe('heard');
  expect(handOver(CARRIED, OPEN, CHANGE, null)).toBe('carried');
  expect(handOver(CARRIED, CLOSED, CHANGE, null)).toBe('not told');
  expect(handOver(PUSHED, CLOSED, CHANGE, null)).toBe('carried');
});

test('a voice that roughens above the change speaks for carried chest, one whose pitch rests less for a hand-over', () => {
  const hardly = { slope: 0.1, level: 0.7 };
  expect(handOver(sung(hardly), OPEN, CHANGE, null)).toBe('not told');
  expect(handOver(sung({ ...hardly, noise: 5 }), OPEN, CHANGE, null)).toBe('carried');
  expect(handOver(sung({ ...hardly, unrest: 2 }), OPEN, CHANGE, null)).toBe('heard');
});

test('harmonics that fall off far more steeply than after any hand-over are a second that stands out, as in belting', () => {
  const told = (slope: number) => handOver(sung({ slope, level: 1.5 }), CLOSED, CHANGE, null);
  expect([-0.3, 0.5, 1.3].map(told)).toEqual(['carried', 'heard', 'not told']);
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
