import { followAlong } from './follow-along';
import { mix } from './mix';
import { exerciseById } from './shelf';

const RATE = 8000;
/** A sine that stands for an instrument's A4, and a click for timing. */
const sine = { midi: 69, samples: Float32Array.from({ length: 4 * RATE }, (_, i) => Math.sin((2 * Math.PI * 440 * i) / RATE)) };
const click = { midi: 60, samples: Float32Array.from({ length: RATE }, (_, i) => (i === 0 ? 1 : 0)) };
const whole = (blocks: Iterable<Float32Array>) => Float32Array.from([...blocks].flatMap((b) => [...b]));

test('a note has its pitch: an octave up crosses zero twice as often, an equal-tempered fifth 1.498 times', () => {
  const crossings = (midi: number) => {
    const out = whole(mix({ notes: [{ startS: 0, endS: 1, midi, loudness: 1 }], totalS: 1 }, [sine], RATE)).subarray(0, RATE);
    return out.reduce((n, v, i) => n + Number(i > 0 && out[i - 1] < 0 && v >= 0), 0);
  };
  expect(crossings(69)).toBeCloseTo(440, -0.5);
  expect(crossings(81) / crossings(69)).toBeCloseTo(2, 1);
  expect(crossings(76) / crossings(69)).toBeCloseTo(1.498, 2);
});

test('every note begins on its sample, also across blocks, five minutes on', () => {
  const notes = Array.from({ length: 600 }, (_, i) => ({ startS: i * 0.5, endS: i * 0.5 + 0.4, midi: 60, loudness: 1 }));
  const out = whole(mix({ notes, totalS: 300 }, [click], RATE));
  const at = [...out.keys()].filter((i) => out[i] > 0.4);
  expect(at).toEqual(notes.map((n) => Math.round(n.startS * RATE)));
});

test('a follow-along: chord, pattern, breath in every key; as often as fits its minutes; a rest between exercises', () => {
  const five = exerciseById('five-note-warm-up');
  const out = followAlong([
    { exercise: five, keys: [60, 61], tempo: 120, minutes: 0.5 },
    { exercise: five, keys: [60], tempo: 120, minutes: 0.1 },
  ]);
  // A key: chord 1 s, 8 quavers 2 s, last note 0.5 s, breath 1 s: seven of them come nearest to half a minute.
  expect(out.exercises[0]).toEqual({ name: five.name, startS: 0, endS: 31.5 });
  expect(out.exercises[1]).toEqual({ name: five.name, startS: 35.5, endS: 40 });
  expect(out.notes.filter((n) => n.startS === 4.5).map((n) => n.midi)).toEqual([61, 65, 68]);
  expect(out.totalS).toBe(40);
});
