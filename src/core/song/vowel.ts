/** The vowels a voice is listened to on, and "ng" and closed lips for what has none. */
export type SungVowel = 'ah' | 'oh' | 'eh' | 'ee' | 'oo' | 'uh';

/** Vowels written as such: what is sung on one vowel throughout. */
const WRITTEN: Record<string, SungVowel> = {
  ah: 'ah',
  oh: 'oh',
  eh: 'eh',
  ay: 'eh',
  ee: 'ee',
  oo: 'oo',
  uh: 'uh',
};

/** Letters that spell a vowel, the longest first, as they are mostly sung: an estimate for a note of advice, no pronouncing dictionary. */
const ENGLISH: readonly [RegExp, SungVowel][] = [
  [/(oo|ew|ue|oul|ui)/, 'oo'],
  [/(igh|ie$|y$|ye$|i[^aeiou]e)/, 'ah'],
  [/(ee|ea|ei|e[^aeiou]e|^(he|she|me|we|be|the)$)/, 'ee'],
  [/(ai|ay|a[^aeiou]e|ey)/, 'eh'],
  [/(oa|ow|o[^aeiou]e|^(so|no|go)$)/, 'oh'],
  [/(ou|au|aw)/, 'ah'],
  [/^[^aeiouy]*a[^aeiou]*$/, 'ah'],
  [/^[^aeiouy]*e[^aeiou]*$/, 'eh'],
  [/^[^aeiouy]*i[^aeiou]*$/, 'ee'],
  [/^[^aeiouy]*o[^aeiou]*$/, 'ah'],
  [/^[^aeiouy]*u[^aeiou]*$/, 'uh'],
  [/y/, 'ee'],
];

/** Languages whose letters say their vowels. */
const BY_LETTER: readonly [RegExp, SungVowel][] = [
  [/(ie|ih|ii|y)/, 'ee'],
  [/(ei|ai|au|aa|ah)/, 'ah'],
  [/(eu|äu|ou|oh|oo)/, 'oh'],
  [/[aáàâä]/, 'ah'],
  [/[eéèêë]/, 'eh'],
  [/[iíìîï]/, 'ee'],
  [/[oóòôö]/, 'oh'],
  [/[uúùûü]/, 'oo'],
];

/**
 * The vowel a syllable is held on, as far as its letters tell; null where they don't.
 * @example vowelOf('moon', 'en') // 'oo'
 * @example vowelOf('vie', 'de') // 'ee'
 */
export function vowelOf(syllable: string, language: string): SungVowel | null {
  const letters = syllable
    .normalize('NFC')
    .toLowerCase()
    .replace(/[^\p{L}]/gu, '');
  if (letters in WRITTEN) return WRITTEN[letters];
  const rules = language === '' || language.startsWith('en') ? ENGLISH : BY_LETTER;
  return rules.find(([spelled]) => spelled.test(letters))?.[1] ?? null;
}
