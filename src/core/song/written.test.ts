import fc from 'fast-check';
import { typedSong } from './typed';
import type { Song } from './types';
import { fifthsOf, namesFlats, writtenBars } from './written';

const song = (melody: string, more = {}): Song => typedSong({ title: 'x', tempo: 90, meter: [4, 4], melody, ...more });
/** A bar's signs in short: what each is and how long, crotchets. */
const signs = (s: Song, semitones = 0) =>
  writtenBars(s, semitones).map((bar) =>
    bar.signs.map(
      ({ spelled, length }) =>
        `${spelled ? spelled.letter + '#'.repeat(Math.max(0, spelled.accidental)) + 'b'.repeat(Math.max(0, -spelled.accidental)) + spelled.octave : 'r'}:${length.beats}`,
    ),
  );

test('a note over a bar line is two signs tied, and what is left of a bar is rests', () => {
  const written = writtenBars(song('C4 D4 E4 F4:3 G4'));
  expect(signs(song('C4 D4 E4 F4:3 G4'))).toEqual([
    ['C4:1', 'D4:1', 'E4:1', 'F4:1'],
    ['F4:2', 'G4:1', 'r:1'],
  ]);
  const tied = written.flatMap((b) => b.signs).filter((s) => s.note?.midi === 65);
  expect(tied.map((s) => [s.begins, s.ends])).toEqual([
    [true, false],
    [false, true],
  ]);
});

// A length of five quavers has no sign of its own: a minim tied to a quaver, or the other way round (any theory of music).
test('a length that no one sign has is written by tied ones', () => {
  const [[...first]] = signs(song('C4:2.5 r:1.5'));
  const note = first.filter((s) => s.startsWith('C4'));
  expect(note.length).toBe(2);
  expect(note.reduce((sum, s) => sum + Number(s.split(':')[1]), 0)).toBe(2.5);
});

test('an upbeat is a bar of the song’s meter that isn’t full', () => {
  const written = writtenBars(song('G4 C5:4', { upbeat: 1 }));
  expect(written.map((b) => [b.upbeat, b.newMeter, b.meter])).toEqual([
    [true, true, [4, 4]],
    [false, false, [4, 4]],
  ]);
});

test('an odd bar in the middle has its own meter written, and the next one the old again', () => {
  const base = song('C4:4 D4:3 E4:4');
  const bars = [
    { ...base.bars[0], start: 0, beats: 4 },
    { ...base.bars[0], start: 4, beats: 3 },
    { ...base.bars[0], start: 7, beats: 4 },
  ];
  const written = writtenBars({ ...base, bars });
  expect(written.map((b) => [b.meter.join('/'), b.newMeter])).toEqual([
    ['4/4', true],
    ['3/4', true],
    ['4/4', true],
  ]);
});

// The circle of fifths (any theory of music): a semitone is seven fifths, an octave none, and six sharps are the most that is written.
test.each([
  [0, 1, -5],
  [0, 2, 2],
  [0, 5, -1],
  [0, 7, 1],
  [-3, 3, 6],
  [4, 12, 4],
  [2, -2, 0],
  [0, 6, 6],
])('a signature of %d moved by %d semitones is one of %d', (fifths, semitones, moved) => {
  expect(fifthsOf(fifths, semitones)).toBe(moved);
  expect(namesFlats({ fifths }, semitones)).toBe(moved < 0);
});

test('notes are spelled as the moved key has them', () => {
  // C major a semitone up is D flat major: its third is F, its second E flat.
  expect(signs(song('C4 D4 E4:2'), 1)).toEqual([['Db4:1', 'Eb4:1', 'F4:2']]);
  expect(signs(song('C4 D4 E4:2'), 4)).toEqual([['E4:1', 'F#4:1', 'G#4:2']]);
});

test('whatever a melody is made of, every bar is filled to its end, and every note is written once, to its length', () => {
  const Note = fc.record({ midi: fc.constantFrom('r', 'C4', 'F#4', 'Bb4'), eighths: fc.integer({ min: 1, max: 24 }) });
  fc.assert(
    fc.property(
      fc.array(Note, { minLength: 1, maxLength: 20 }),
      fc.constantFrom<[number, number]>([4, 4], [3, 4], [6, 8]),
      (notes, meter) => {
        fc.pre(notes.some((n) => n.midi !== 'r'));
        const made = song(notes.map((n) => `${n.midi}:${n.eighths / 2}`).join(' '), { meter });
        const written = writtenBars(made);
        for (const { bar, signs: inBar } of written) {
          let at = bar.start;
          for (const s of inBar) {
            expect(s.start).toBeCloseTo(at, 6);
            at += s.length.beats;
          }
          expect(at).toBeCloseTo(bar.start + bar.beats, 6);
        }
        const all = written.flatMap((b) => b.signs);
        for (const note of made.notes) {
          const own = all.filter((s) => s.note === note);
          expect(own.reduce((sum, s) => sum + s.length.beats, 0)).toBeCloseTo(note.beats, 6);
          expect([own.filter((s) => s.begins).length, own.filter((s) => s.ends).length]).toEqual([1, 1]);
          expect([own[0].begins, own[own.length - 1].ends]).toEqual([true, true]);
        }
      },
    ),
    { numRuns: 60 },
  );
});
