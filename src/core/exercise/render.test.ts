import { exerciseById } from './shelf';
import { notate, renderKey, targetCurve } from './render';
import { writtenLengths } from './lengths';

test('a key in time: its chord, then the pattern at the tempo, then a breath', () => {
  const key = renderKey(exerciseById('five-note-warm-up'), 57, 120);
  expect(key.chord).toEqual([57, 61, 64]);
  expect(key.notes.map((n) => n.midi)).toEqual([57, 59, 61, 62, 64, 62, 61, 59, 57]);
  expect(key.notes[0].startS).toBeCloseTo(1);
  // Quavers at crotchet = 120 last a quarter of a second.
  expect(key.notes[1].startS - key.notes[0].startS).toBeCloseTo(0.25);
  expect(key.totalS).toBeCloseTo(1 + 8 * 0.25 + 0.5 + 1);
});

test('the curve that is meant: an unbroken slide is one run, steps are runs of their own', () => {
  // 1 8~1 at crotchet = 60: chord 2 s, then 1.5 s, 1.5 s of slide, 1 s.
  expect(targetCurve(renderKey(exerciseById('falling-siren'), 50, 60))).toEqual([
    [
      { timeS: 2, midi: 50 },
      { timeS: 3.5, midi: 50 },
    ],
    [
      { timeS: 3.5, midi: 62 },
      { timeS: 5, midi: 50 },
      { timeS: 6, midi: 50 },
    ],
  ]);
});

test('notation puts low voices in the bass clef, tenors an octave down, and spells the key', () => {
  const five = exerciseById('five-note-warm-up');
  expect(notate(five, 46)).toMatchObject({
    clef: 'bass',
    notes: [{ letter: 'B', accidental: -1, octave: 2 }, {}, {}, { letter: 'E', accidental: -1 }, {}, {}, {}, {}, {}],
  });
  expect(notate(five, 62).clef).toBe('treble');
  expect([notate(five, 50, 'baritone').clef, notate(five, 50, 'tenor').clef, notate(five, 50, 'mezzo').clef]).toEqual([
    'bass',
    'treble-8',
    'treble',
  ]);
});

test('lengths are written as notes: plain, dotted, triplets, tied', () => {
  const said = (beats: number) => writtenLengths(beats).map((l) => `${l.type}${l.dots ? '.' : ''}${l.triplet ? '3' : ''}`);
  expect([0.25, 1, 1.5, 6, 1 / 3, 2.5].map(said)).toEqual([
    ['16th'],
    ['quarter'],
    ['quarter.'],
    ['whole.'],
    ['eighth3'],
    ['half', 'eighth'],
  ]);
  expect(writtenLengths(5).reduce((sum, l) => sum + l.beats, 0)).toBe(5);
});
