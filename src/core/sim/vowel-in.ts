import type { Vowel } from './tract';

const VOWELS: readonly Vowel[] = ['ah', 'oh', 'eh', 'ee', 'oo', 'uh'];

/** The vowel of a sound, as the simulated singer knows them: “la” has an ah. What has none (a straw, lips) is sung on oo; no sound, on ah. */
export const vowelIn = (sound: string): Vowel => VOWELS.find((v) => sound.includes(v)) ?? (sound === '' || /a/.test(sound) ? 'ah' : 'oo');
