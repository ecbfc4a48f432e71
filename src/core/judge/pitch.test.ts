import { exerciseById } from '../exercise/shelf';
import { renderKey } from '../exercise/render';
import type { Exercise } from '../exercise/types';
import type { Trace } from '../take/types';
import type { Check } from './hearing';
import { madeHearing, madeTake } from './made-trace';
import { missedTheEnd, outOfTune, unsteady, wrongNote } from './pitch';

/** One key of an exercise sung as asked, but for what `bend` makes of each sounding frame: its pitch, and its time as a share of the key. */
function looks(check: Check, id: string, bend: (midi: number, share: number) => number, tonic = 55) {
  const exercise: Exercise = exerciseById(id);
  const asked = { exercise, sound: 'ah', keys: [tonic], tempo: exercise.tempo[1] };
  const { trace } = madeTake([renderKey(exercise, tonic, asked.tempo)]);
  const sounding = trace.midi.flatMap((m, i) => (m > 0 ? [i] : []));
  const [first, last] = [sounding[0], sounding[sounding.length - 1]];
  const midi = trace.midi.map((m, i) => (m > 0 ? bend(m, (i - first) / (last - first)) : 0));
  const bent: Trace = { ...trace, midi };
  const { keys, hearing } = madeHearing(asked, bent);
  return check.applies?.(hearing) === false ? 'does not apply' : check.look(keys[0], hearing);
}
/** Frames of the one note of a key that stands highest. */
const top = (by: number) => (midi: number) => (midi > 61.5 ? midi + by : midi);

describe('a wrong note', () => {
  test('is one that settles nearer to another note than a tuned one ever is, told with how far off it was', () => {
    expect(looks(wrongNote, 'five-note-ah', top(0))).toBeNull();
    expect(looks(wrongNote, 'five-note-ah', top(0.6))).toBeNull();
    for (const by of [-1, 0.8, 1]) {
      const found = looks(wrongNote, 'five-note-ah', top(by));
      expect(found).toMatchObject({ midi: 62 });
      expect((found as { by: number }).by).toBeCloseTo(by, 1);
    }
  });

  test('does not count a swing of vibrato, nor a scoop from below', () => {
    const vibrato = (midi: number, share: number) => midi + 0.9 * Math.sin(2 * Math.PI * 22 * share);
    expect(looks(wrongNote, 'five-note-ah', vibrato)).toBeNull();
    expect(looks(wrongNote, 'five-note-ah', (midi, share) => midi - 2 * Math.exp(-share / 0.015))).toBeNull();
  });

  test('is heard where the whole key is another tune', () => {
    // Everything on the first note: two thirds of what was asked for is not in it.
    expect(looks(wrongNote, 'five-note-ah', () => 55)).not.toBeNull();
  });
});

describe('out of tune', () => {
  test('is a key that lies off as a whole by more than 0.4 semitones, whichever way', () => {
    for (const by of [0, 0.3, -0.3]) expect([by, looks(outOfTune, 'five-note-ah', (m) => m + by)]).toEqual([by, null]);
    for (const by of [0.5, -0.5]) {
      const found = looks(outOfTune, 'five-note-ah', (m) => m + by);
      expect((found as { by: number }).by).toBeCloseTo(by, 1);
    }
  });

  test('is more than one note in five a quarter tone off; one alone is let be', () => {
    expect(looks(outOfTune, 'five-note-ah', top(0.6))).toBeNull();
    const middle = (m: number) => (m > 58.5 && m < 60.5 ? m + 0.6 : m);
    expect(looks(outOfTune, 'five-note-ah', middle)).toMatchObject({ midi: 59 });
  });
});

describe('the end of a slide', () => {
  /** Half of an octave's siren reaches so far short of its top, or past it. */
  const reaching = (by: number, topMidi: number, tonic: number) => (m: number) =>
    tonic + ((m - tonic) * (topMidi + by - tonic)) / (topMidi - tonic);

  test('may be missed by a semitone, not by more: short of it or past it', () => {
    const exercise = exerciseById('long-siren');
    const span = Math.max(...renderKey(exercise, 55, 60).notes.map((n) => n.midi));
    for (const by of [0, -0.9, 0.9]) expect([by, looks(missedTheEnd, 'long-siren', reaching(by, span, 55))]).toEqual([by, null]);
    for (const by of [-1.6, -3, 1.6]) {
      const found = looks(missedTheEnd, 'long-siren', reaching(by, span, 55));
      expect(found).toMatchObject({ midi: span });
      expect(Math.sign((found as { by: number }).by)).toBe(Math.sign(by));
    }
  });

  test('is asked of nothing that is stepped', () => {
    expect(looks(missedTheEnd, 'five-note-ah', top(-3))).toBeNull();
  });

  test('is not missed where a single frame was read an octave away, or was the outermost of a swing', () => {
    const sung: number[] = [];
    looks(missedTheEnd, 'long-siren', (m) => (sung.push(m), m));
    const at = (frame: number, by: number) => {
      let n = 0;
      return looks(missedTheEnd, 'long-siren', (m) => (n++ === frame ? m + by : m));
    };
    const [highest, lowest] = [sung.indexOf(Math.max(...sung)), sung.indexOf(Math.min(...sung))];
    for (const [frame, by] of [
      [60, 12],
      [highest, 3],
      [lowest, -3],
    ])
      expect([by, at(frame, by)]).toEqual([by, null]);
  });
});

describe('a held note', () => {
  const HELD = 'hum-drone';

  test('that sinks or rises by more than half a semitone is unsteady, with which way', () => {
    expect(looks(unsteady, HELD, (m) => m)).toBeNull();
    expect(looks(unsteady, HELD, (m, share) => m + 0.3 * share)).toBeNull();
    for (const by of [1, -1]) expect(looks(unsteady, HELD, (m, share) => m + by * (share - 0.5))).toMatchObject({ by: expect.any(Number) });
    const sinks = looks(unsteady, HELD, (m, share) => m - (share - 0.5)) as { by: number };
    expect(sinks.by).toBeLessThan(-0.5);
  });

  test('with a vibrato about its pitch is steady', () => {
    expect(looks(unsteady, HELD, (m, share) => m + 0.7 * Math.sin(2 * Math.PI * 24 * share))).toBeNull();
  });

  test('is looked at only where an exercise is held', () => {
    expect(looks(unsteady, 'five-note-ah', (m, share) => m + share)).toBe('does not apply');
  });
});
