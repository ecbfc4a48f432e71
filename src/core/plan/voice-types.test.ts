import { parseNote } from '../music/pitch';
import { expectedChange, VOICE_TYPES, VoiceTypeId, voiceType } from './voice-types';

// R. Miller, The Structure of Singing (1986) and Training Tenor Voices (1993), from memory; ranges of notes where he gives some.
test.each<[VoiceTypeId, [string, string], [string, string]]>([
  ['bass', ['A3', 'A3'], ['D4', 'D4']],
  ['baritone', ['B3', 'B3'], ['E4', 'E4']],
  ['tenor', ['D4', 'D4'], ['G4', 'G4']],
  ['contralto', ['F4', 'G4'], ['D5', 'D5']],
  ['mezzo', ['E4', 'F4'], ['E5', 'F5']],
  ['soprano', ['Eb4', 'Eb4'], ['F#5', 'F#5']],
])('%s: first and second passaggio as published', (id, primo, secondo) => {
  const type = voiceType(id);
  expect(type.primo).toBeGreaterThanOrEqual(parseNote(primo[0]));
  expect(type.primo).toBeLessThanOrEqual(parseNote(primo[1]));
  expect(type.secondo).toBeGreaterThanOrEqual(parseNote(secondo[0]));
  expect(type.secondo).toBeLessThanOrEqual(parseNote(secondo[1]));
});

test('men hand over around C4 to E4, women around A4 (common practice, no source), inside their range', () => {
  for (const { id, tract, low, high } of VOICE_TYPES) {
    const change = expectedChange(id);
    const [from, to] = tract === 'man' ? ['C4', 'E4'] : ['G4', 'A#4'];
    expect(change).toBeGreaterThanOrEqual(parseNote(from));
    expect(change).toBeLessThanOrEqual(parseNote(to));
    expect(change).toBeGreaterThan(low);
    expect(change).toBeLessThan(high);
  }
});
