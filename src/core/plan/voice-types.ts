/**
 * Where the passaggi are expected before anything was heard: primo and secondo (R. Miller, The Structure of Singing,
 * 1986, and Training Tenor Voices, 1993; from memory). The recording and the coach override them.
 */
export const VOICE_TYPES = [
  { id: 'bass', name: 'Bass', primo: 57, secondo: 62, low: 40, high: 64, tract: 'man' },
  { id: 'baritone', name: 'Baritone', primo: 59, secondo: 64, low: 43, high: 67, tract: 'man' },
  { id: 'tenor', name: 'Tenor', primo: 62, secondo: 67, low: 48, high: 72, tract: 'man' },
  { id: 'contralto', name: 'Contralto', primo: 66, secondo: 74, low: 53, high: 77, tract: 'woman' },
  { id: 'mezzo', name: 'Mezzo', primo: 64, secondo: 76, low: 57, high: 81, tract: 'woman' },
  { id: 'soprano', name: 'Soprano', primo: 63, secondo: 78, low: 60, high: 84, tract: 'woman' },
] as const;

/** Whether a type is one of the lower or the higher voices, to be compared with its own kind. */
export const familyOf = (id: VoiceTypeId): 'low' | 'high' => (voiceType(id).tract === 'man' ? 'low' : 'high');

export type VoiceTypeId = (typeof VOICE_TYPES)[number]['id'];

export const voiceType = (id: VoiceTypeId) => VOICE_TYPES.find((t) => t.id === id)!;

/**
 * Where chest usually hands over when nothing was measured (common practice, no source): men around C4 to E4, women around A4, the
 * lower voices lower.
 */
const EXPECTED: Record<VoiceTypeId, number> = { bass: 60, baritone: 62, tenor: 64, contralto: 68, mezzo: 69, soprano: 70 };

export const expectedChange = (id: VoiceTypeId): number => EXPECTED[id];
