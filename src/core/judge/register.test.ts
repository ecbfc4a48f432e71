import { exerciseById } from '../exercise/shelf';
import { renderKey } from '../exercise/render';
import type { TakeEvent } from '../take/types';
import type { Hearing } from './hearing';
import { madeHearing, madeTake } from './made-trace';
import { changedAtOnce, chestCarried, notHeard } from './register';

const SIREN = exerciseById('long-siren');
const KEYS = [55, 57];

function heard(events: readonly TakeEvent[] = [], exercise = SIREN, sound = 'ah') {
  const asked = { exercise, sound, keys: KEYS, tempo: exercise.tempo[1] };
  return madeHearing(asked, madeTake(KEYS.map((k) => renderKey(exercise, k, asked.tempo))).trace, events);
}

/** A key reaches so far to both sides of a change that it crosses it. */
const CROSSES_ST = 1.5;

describe('what was heard of a hand-over', () => {
  const looked = (changeMidi: number, handOver: 'heard' | 'carried' | 'not told') => {
    const { keys, hearing } = heard();
    const at: Hearing = { ...hearing, crossing: { changeMidi, handOver } };
    return [chestCarried, notHeard].map((check) => keys.map((key) => check.look(key, at)?.midi ?? null));
  };
  const top = Math.max(...renderKey(SIREN, KEYS[0], 60).notes.map((n) => n.midi));

  test('is said of the keys that pass the change, and of what was heard there', () => {
    expect(looked(61.4, 'heard')).toEqual([
      [null, null],
      [null, null],
    ]);
    expect(looked(61.4, 'carried')).toEqual([
      [61, 61],
      [null, null],
    ]);
    expect(looked(61.4, 'not told')).toEqual([
      [null, null],
      [61, 61],
    ]);
  });

  test('is nothing to a key that hardly reaches over the change', () => {
    // The first key's top is just short of enough, the second's, two semitones higher, is over it.
    expect(looked(top - CROSSES_ST + 0.1, 'carried')[0].map((midi) => midi !== null)).toEqual([false, true]);
    expect(looked(top + 2 - CROSSES_ST - 0.1, 'carried')[0].map((midi) => midi !== null)).toEqual([false, true]);
    // Nor to one that begins above it.
    expect(looked(KEYS[0] + CROSSES_ST - 0.1, 'carried')[0].map((midi) => midi !== null)).toEqual([false, false]);
  });

  test('is not asked where nothing is to be crossed', () => {
    const { keys, hearing } = heard();
    for (const check of [chestCarried, notHeard]) for (const key of keys) expect(check.look(key, hearing)).toBeNull();
  });
});

describe('a colour that changes at once', () => {
  const BLEND: typeof SIREN = { ...SIREN, measure: 'blends' };
  const [first, second] = heard().keys;
  const event = (timeS: number, midi: number, confidence = 0.9): TakeEvent =>
    ({ timeS, midi, kind: 'timbre', direction: 'up', fromMidi: midi, toMidi: midi, confidence }) as TakeEvent;
  const middle = (key: typeof first) => (key.notes[0].startS + key.notes[0].endS) / 2;
  const looks = (events: readonly TakeEvent[], exercise = BLEND, sound = 'ah') => {
    const { keys, hearing } = heard(events, exercise, sound);
    return changedAtOnce.applies!(hearing) ? keys.map((key) => changedAtOnce.look(key, hearing) !== null) : 'does not apply';
  };

  test('is told where it comes again at its place, once by the way it is nothing', () => {
    expect(looks([event(middle(first), 61)])).toEqual([false, false]);
    expect(looks([event(middle(first), 61), event(middle(second), 62)])).toEqual([true, true]);
    // Elsewhere, or doubted, it is not again.
    expect(looks([event(middle(first), 61), event(middle(second), 65)])).toEqual([false, false]);
    expect(looks([event(middle(first), 61), event(middle(second), 62, 0.3)])).toEqual([false, false]);
  });

  test('is asked of blends only, and where colour can be heard', () => {
    const twice = [event(middle(first), 61), event(middle(second), 62)];
    expect(looks(twice, SIREN)).toBe('does not apply');
    expect(looks(twice, BLEND, 'straw')).toBe('does not apply');
  });
});
