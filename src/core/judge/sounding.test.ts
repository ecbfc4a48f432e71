import { exerciseById } from '../exercise/shelf';
import { renderKey } from '../exercise/render';
import type { TakeEvent, Trace } from '../take/types';
import { madeHearing, madeTake } from './made-trace';
import { changedAtOnce } from './register';
import { notSung, pitchLost, stopped } from './sounding';
import type { Asked } from './types';

const FIVE = exerciseById('five-note-ah');
const ASKED: Asked = { exercise: FIVE, sound: 'ah', keys: [55], tempo: 90 };
const ROOM_DB = -60;

/** The five notes sung as asked, but for what is done to some frames. */
function sung(edit: (trace: Trace, frame: (timeS: number) => number) => void, asked = ASKED, events: readonly TakeEvent[] = []) {
  const { trace } = madeTake(asked.keys.map((k) => renderKey(asked.exercise, k, asked.tempo)));
  const made: Trace = { ...trace, midi: [...trace.midi], levelDb: [...trace.levelDb] };
  edit(made, (timeS) => Math.round(timeS / trace.hopS));
  return madeHearing(asked, made, events);
}
const whole = sung(() => {}).keys[0];
/** A hole of so long in the middle of the key, this loud. */
const hole =
  (seconds: number, db: number, at = (whole.startS + whole.endS) / 2) =>
  (trace: Trace, frame: (timeS: number) => number) => {
    for (let i = frame(at); i < frame(at + seconds); i++) {
      trace.midi[i] = 0;
      trace.levelDb[i] = db;
    }
  };
const looks = (check: typeof stopped, edit: Parameters<typeof sung>[0], asked = ASKED) => {
  const { keys, hearing } = sung(edit, asked);
  return check.look(keys[0], hearing);
};

describe('a stop', () => {
  test('is a silence inside a key, told with where it lies and how long it was', () => {
    const found = looks(stopped, hole(0.3, ROOM_DB));
    expect(found!.by).toBeCloseTo(0.3, 1);
    expect(whole.notes.map((n) => n.midi)).toContain(found!.midi);
  });

  test('is none where it is short, where only the pitch was lost, or where a soft note was found late', () => {
    expect(looks(stopped, hole(0.1, ROOM_DB))).toBeNull();
    expect(looks(stopped, hole(0.3, -20))).toBeNull();
    expect(looks(stopped, () => {})).toBeNull();
    const soft = (trace: Trace, frame: (timeS: number) => number) => {
      const from = frame((whole.startS + whole.endS) / 2);
      hole(0.2, ROOM_DB)(trace, frame);
      for (let i = from + 30; i < trace.midi.length; i++) if (trace.midi[i] > 0) trace.levelDb[i] = ROOM_DB;
    };
    expect(looks(stopped, soft)).toBeNull();
  });

  test('a consonant between notes may take longer than a hole in one vowel', () => {
    const consonant = hole(0.2, ROOM_DB);
    expect(looks(stopped, consonant)).not.toBeNull();
    expect(looks(stopped, consonant, { ...ASKED, sound: 'g' })).toBeNull();
  });

  test('before and after a key there is silence, and it is none', () => {
    expect(looks(stopped, hole(1, ROOM_DB, whole.endS + 0.05))).toBeNull();
  });
});

test('a key of which hardly anything sounds was left out, not sung badly', () => {
  expect(looks(notSung, () => {})).toBeNull();
  expect(looks(notSung, hole(20, ROOM_DB, whole.startS + 0.2))).toEqual({});
});

test('a note that is loud enough and has no pitch can’t be told; one that isn’t there was not sung', () => {
  const note = whole.notes[3];
  const lost = hole(note.endS - note.startS, -20, note.startS);
  const gone = hole(note.endS - note.startS, ROOM_DB, note.startS);
  expect(looks(pitchLost, lost)).not.toBeNull();
  expect(looks(stopped, lost)).toBeNull();
  expect(looks(pitchLost, gone)).toBeNull();
  expect(looks(stopped, gone)).not.toBeNull();
  expect(looks(pitchLost, () => {})).toBeNull();
});

describe('a change of colour at once', () => {
  const blends: Asked = { ...ASKED, exercise: { ...FIVE, measure: 'blends' } };
  const event = (more: Partial<TakeEvent> = {}): TakeEvent => {
    const timeS = (whole.startS + whole.endS) / 2;
    return { timeS, midi: 60, fromMidi: 60, toMidi: 60, direction: 'up', kind: 'timbre', confidence: 0.9, dipDb: 0, ...more };
  };
  const found = (...events: TakeEvent[]) => {
    const { keys, hearing } = sung(() => {}, blends, events);
    return changedAtOnce.look(keys[0], hearing);
  };

  test('counts when it comes again at its place', () => {
    expect(found(event(), event({ timeS: 20, midi: 61.5 }))).not.toBeNull();
  });

  test('once by the way, elsewhere, unsure, or as a leap it doesn’t', () => {
    expect(found(event())).toBeNull();
    expect(found(event(), event({ timeS: 20, midi: 65 }))).toBeNull();
    expect(found(event({ confidence: 0.3 }), event({ timeS: 20, confidence: 0.3 }))).toBeNull();
    expect(found(event({ kind: 'flip' }), event({ timeS: 20, kind: 'flip' }))).toBeNull();
    expect(found()).toBeNull();
  });

  test('is asked for only where a blend is practised, on a sound whose colour can be heard', () => {
    const applies = (asked: Asked) => changedAtOnce.applies!(sung(() => {}, asked).hearing);
    expect(applies(blends)).toBe(true);
    expect(applies({ ...blends, exercise: { ...FIVE, measure: 'even' } })).toBe(false);
    expect(applies({ ...blends, sound: 'straw' })).toBe(false);
  });
});
