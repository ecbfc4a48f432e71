import { renderKey } from '../exercise/render';
import { exerciseById } from '../exercise/shelf';
import { HOP_S } from '../voice/types';
import { keyInTune } from './key-in-tune';

const key = renderKey(exerciseById('five-note-ah'), 60, 100);

/** The key sung so many semitones off, from a frame on. */
function sung(offSt: (timeS: number) => number | null, firstFrame = 0): number[] {
  const midi = new Array<number>(firstFrame + Math.ceil(key.totalS / HOP_S)).fill(0);
  for (const { startS, endS, midi: meant } of key.notes)
    for (let i = Math.ceil(startS / HOP_S); i < endS / HOP_S; i++) {
      const off = offSt(i * HOP_S);
      if (off !== null) midi[firstFrame + i] = meant + off;
    }
  return midi;
}

test('sung as meant it is in tune, in any octave and wherever in the take it begins; a semitone off it isn’t', () => {
  expect(
    keyInTune(
      sung(() => 0.2),
      0,
      key,
    ),
  ).toBe(true);
  expect(
    keyInTune(
      sung(() => -12.3),
      0,
      key,
    ),
  ).toBe(true);
  expect(
    keyInTune(
      sung(() => 0, 700),
      700,
      key,
    ),
  ).toBe(true);
  expect(
    keyInTune(
      sung(() => 1),
      0,
      key,
    ),
  ).toBe(false);
  expect(
    keyInTune(
      sung(() => 0, 700),
      500,
      key,
    ),
  ).toBe(false);
});

test('three fifths of what is sung must be; what isn’t sung doesn’t count, and too little tells nothing', () => {
  const middle = (key.notes[0].startS + key.notes.at(-1)!.endS) / 2;
  expect(
    keyInTune(
      sung((s) => (s < middle ? 0 : 1)),
      0,
      key,
    ),
  ).toBe(false);
  expect(
    keyInTune(
      sung((s) => (s < middle ? 0 : null)),
      0,
      key,
    ),
  ).toBe(true);
  expect(
    keyInTune(
      sung((s) => (s < key.notes[0].startS + 0.15 ? 0 : null)),
      0,
      key,
    ),
  ).toBeNull();
});
