import { inEnglish } from '../../core/format/say';
import type { VoiceMap } from '../../core/map/types';
import { COLOURS, TASKS } from '../../core/take/types';
import { COLOUR_WORDS, simulatedTask, VOWELS, whatToSing } from './what-to-sing';

const mapWith = (of: Partial<Record<'usable' | 'extreme', number>>) =>
  ({
    usable: of.usable === undefined ? null : { low: { midi: of.usable }, high: { midi: 76 } },
    extreme: of.extreme === undefined ? null : { low: { midi: of.extreme }, high: { midi: 79 } },
  }) as VoiceMap;
const how = (map: VoiceMap | null) => inEnglish(whatToSing('scale', 'ah', map, 48).how);

test('a scale begins where the voice is easy: what may be sung counts, then what was touched, then what such voices sing', () => {
  expect(how(mapWith({ usable: 53, extreme: 50 }))).toContain('from A3');
  expect(how(mapWith({ extreme: 50 }))).toContain('from F#3');
  expect(how(mapWith({}))).toContain('from E3');
  expect(how(null)).toContain('from E3');
});

test('whatever is asked for has a title and one line on how, and names its vowel', () => {
  for (const task of TASKS)
    for (const vowel of VOWELS) {
      const { title, how: line } = whatToSing(task, vowel, null, 48);
      expect(inEnglish(line).length).toBeGreaterThan(20);
      if (task !== 'speech' && task !== 'free') expect(inEnglish(title)).toContain(`“${vowel}”`);
    }
});

test('one note in four colours is asked for in all four, from chest to head, and so sung by the simulated singer', () => {
  expect(COLOUR_WORDS.map(([colour]) => colour)).toEqual(COLOURS);
  const heads = COLOURS.map((colour) => (simulatedTask('sustain', colour, 48, 72) as { head?: number }).head);
  expect(heads[0]).toBe(0);
  expect(heads[heads.length - 1]).toBe(1);
  expect([...heads].sort()).toEqual(heads);
  expect(simulatedTask('sustain', null, 48, 72)).toMatchObject({ kind: 'sustain', seconds: 3 });
});

test('the simulated singer’s scales stay within its voice', () => {
  for (const [low, high] of [
    [40, 60],
    [48, 72],
    [55, 84],
  ]) {
    const task = simulatedTask('scale', null, low, high) as { tonics: number[]; degrees: number[] };
    expect(task.tonics.length).toBeGreaterThan(1);
    for (const tonic of task.tonics) expect([tonic >= low, tonic + 7 < high]).toEqual([true, true]);
  }
});
