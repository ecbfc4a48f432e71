import { Accompaniment, ACCOMPANIMENTS, followAlong, pianoNotes } from './follow-along';
import { renderKey } from './render';
import { goneOn, goneTo, roundOf, Walk, walkOf } from './round';
import { exerciseById, SHELF } from './shelf';

/** The keys that sound in so many turns, `asks` having been said before each. */
const sounded = (keys: number[], turns: number, asks: (walk: Walk, turn: number) => Walk = (walk) => walk) => {
  let walk = walkOf(keys);
  return Array.from({ length: turns }, (_, turn) => {
    if (turn > 0) walk = goneOn(walk);
    walk = asks(walk, turn);
    return walk.keys[walk.at];
  });
};

test('keys go up, turn once at each end and come back', () => {
  expect(sounded([60, 61, 62], 6)).toEqual([60, 61, 62, 61, 60, 61]);
  expect(sounded([60, 62], 4)).toEqual([60, 62, 60, 62]);
  expect(sounded([60], 3)).toEqual([60, 60, 60]);
  expect(roundOf(SHELF[0], [], 100, 1)).toEqual([]);
});

test('a key is sung once more, or until it is let go; one that is chosen goes on the way it went', () => {
  const keys = [60, 61, 62, 63];
  expect(sounded(keys, 5, (walk, turn) => (turn === 1 ? { ...walk, stays: 'once' } : walk))).toEqual([60, 61, 61, 62, 63]);
  const holds = (walk: Walk, turn: number): Walk => (turn === 1 ? { ...walk, stays: 'on' } : turn === 3 ? { ...walk, stays: null } : walk);
  expect(sounded(keys, 6, holds)).toEqual([60, 61, 61, 61, 62, 63]);
  expect(sounded(keys, 6, (walk, turn) => (turn === 1 ? goneTo(walk, 3) : turn === 3 ? goneTo(walk, 0) : walk))).toEqual([
    60, 63, 62, 60, 61, 62,
  ]);
});

test('what is played is what was prescribed, to half a key, on the page as in the sound file', () => {
  for (const exercise of SHELF)
    for (const minutes of [0.5, 1, 1.5, 2, 3]) {
      const tempo = exercise.tempo[1];
      const keys = [55, 56, 57, 58];
      const keyS = renderKey(exercise, 55, tempo).totalS;
      const round = roundOf(exercise, keys, tempo, minutes);
      expect(Math.abs(round.length * keyS - minutes * 60)).toBeLessThanOrEqual(keyS / 2 + 1e-9);
      const { totalS } = followAlong([{ exercise, keys, tempo, minutes }]);
      expect(totalS).toBeCloseTo(round.length * keyS, 6);
    }
});

test('what the piano does under the voice: the notes, the chord on each beat of them, or nothing; never longer than the key', () => {
  const five = exerciseById('five-note-warm-up');
  const key = renderKey(five, 60, 120);
  const from = (accompaniment: Accompaniment) => pianoNotes([key, key], 0, accompaniment);
  const chords = (accompaniment: Accompaniment) =>
    from(accompaniment)
      .filter((n) => n.midi === 67)
      .map((n) => n.startS);
  expect(from('chord').map((n) => n.startS)).toEqual([0, 0, 0, 4.5, 4.5, 4.5]);
  // A chord of two beats, then five beats of half a second: eight quavers and a crotchet.
  expect(chords('beats')).toEqual([0, 1, 1.5, 2, 2.5, 3, 4.5, 5.5, 6, 6.5, 7, 7.5]);
  expect(
    from('notes')
      .filter((n) => n.startS >= 1 && n.startS < 4.5)
      .map((n) => n.midi),
  ).toEqual(key.notes.map((n) => n.midi));
  for (const accompaniment of ACCOMPANIMENTS)
    for (const exercise of SHELF) {
      const one = renderKey(exercise, 60, exercise.tempo[1]);
      const over = one.notes[one.notes.length - 1].endS;
      for (const { startS, endS } of pianoNotes([one], 0, accompaniment)) expect([startS < endS, endS <= over + 0.5]).toEqual([true, true]);
    }
});
