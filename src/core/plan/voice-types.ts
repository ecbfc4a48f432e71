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

export type VoiceTypeId = (typeof VOICE_TYPES)[number]['id'];

export const voiceType = (id: VoiceTypeId) => VOICE_TYPES.find((t) => t.id === id)!;

/** Where chest usually hands over when nothing was measured: about D4 in men, A4 in women (common practice, no source). */
export function expectedChange(id: VoiceTypeId): number {
  return voiceType(id).tract === 'man' ? 62 : 69;
}
