import { HOP_S } from '../voice/types';
import { STEPS } from './protocols';
import { targetOf, voiceBegins } from './target';
import type { Ask } from './types';

const frames = (...runs: [frames: number, midi: number][]) => runs.flatMap(([n, midi]) => Array<number>(n).fill(midi));

test('a voice begins where it goes on sounding, not at a knock before', () => {
  expect(voiceBegins([])).toBeNull();
  expect(voiceBegins(frames([100, 0], [19, 60], [40, 0]))).toBeNull();
  expect(voiceBegins(frames([100, 0], [8, 60], [40, 0], [20, 62], [30, 0]))).toBeCloseTo(148 * HOP_S);
  expect(voiceBegins(frames([20, 55]))).toBe(0);
});

test('the target of a key begins with its first note, in its tempo; a step that leaves the notes to the singer has none', () => {
  const asked: Ask = {
    step: STEPS['warm-up'],
    tonicMidi: 60,
    colour: null,
    loudness: null,
    vowel: 'oo',
    number: 1,
    of: 5,
    confirms: false,
  };
  const quaverS = 0.3;
  const target = targetOf(asked);
  expect(target.map((run) => run.map((p) => p.midi))).toEqual([60, 62, 64, 65, 67, 65, 64, 62, 60].map((midi) => [midi, midi]));
  target.forEach((run, i) => expect(run[0].timeS).toBeCloseTo(i * quaverS));
  expect(target[8][1].timeS).toBeCloseTo(8 * quaverS + 2 * quaverS);
  expect(targetOf({ ...asked, tonicMidi: null })).toEqual([]);
  expect(targetOf({ ...asked, step: STEPS.speaking })).toEqual([]);
});
