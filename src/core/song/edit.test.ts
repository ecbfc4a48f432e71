import * as fc from 'fast-check';
import { SongShape } from '../format/song';
import { DEMO_SONGS } from './demo-songs';
import { edited, NoteEdit } from './edit';
import { typedSong } from './typed';
import { typedText } from './typed-text';

const song = typedSong({ title: 'x', tempo: 90, meter: [4, 4], melody: 'C4 D4:2 E4 | F4:4', words: 'one two three four' });
const said = (edit: NoteEdit, index = 1) => {
  const { melody, words } = typedText(edited(song, index, edit));
  return [melody, words];
};

test('a note is moved, made longer or shorter, repeated and taken out; what comes later moves with it and is barred again', () => {
  expect(said({ does: 'move', semitones: 1 })).toEqual(['C4 D#4:2 E4 | F4:4', 'one two three four']);
  expect(said({ does: 'stretch', by: 2 })).toEqual(['C4 D4:4 | E4 F4:4', 'one two three four']);
  expect(said({ does: 'stretch', by: 0.5 })).toEqual(['C4 D4 E4 F4:4', 'one two three four']);
  expect(said({ does: 'repeat' })).toEqual(['C4 D4:2 D4:2 | E4 F4:4', 'one two _ three four']);
  expect(said({ does: 'remove' })).toEqual(['C4 E4 F4:4', 'one three four']);
});

test('what can’t be is not done', () => {
  const alone = edited(edited(song, 0, { does: 'remove' }), 0, { does: 'remove' });
  const last = edited(alone, 0, { does: 'remove' });
  expect(edited(last, 0, { does: 'remove' })).toBe(last);
  expect(edited(song, 9, { does: 'remove' })).toBe(song);
  expect(edited(song, 0, { does: 'move', semitones: 99 })).toBe(song);
  expect(edited(song, 0, { does: 'stretch', by: 1e6 })).toBe(song);
});

test('whatever is done to whichever note, it stays a song, and is typed and read back the same', () =>
  fc.assert(
    fc.property(
      fc.constantFrom(...DEMO_SONGS),
      fc.array(
        fc.record({
          at: fc.nat({ max: 60 }),
          edit: fc.constantFrom<NoteEdit>(
            { does: 'move', semitones: -1 },
            { does: 'stretch', by: 2 },
            { does: 'stretch', by: 0.5 },
            { does: 'remove' },
            { does: 'repeat' },
          ),
        }),
        { maxLength: 12 },
      ),
      (from, edits) => {
        const out = edits.reduce((s, { at, edit }) => edited(s, at, edit), from);
        expect(SongShape.safeParse(out).success).toBe(true);
        expect(typedSong(typedText(out)).notes.map(({ midi, start }) => [midi, start.toFixed(3)])).toEqual(
          out.notes.map(({ midi, start }) => [midi, start.toFixed(3)]),
        );
      },
    ),
    { numRuns: 200 },
  ));
