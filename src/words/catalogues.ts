import type { Catalogue, Language } from '../core/format/say';
import type { Naming } from '../core/music/naming';

const FILES: Record<Exclude<Language, 'en'>, () => Promise<{ default: Catalogue }>> = {
  de: () => import('./de.json'),
  es: () => import('./es.json'),
  fr: () => import('./fr.json'),
  it: () => import('./it.json'),
};
const NONE: Promise<Catalogue> = Promise.resolve({});
const loaded = new Map<Language, Promise<Catalogue>>();

/** A language's translations, fetched once; English needs none. */
export function catalogueOf(language: Language): Promise<Catalogue> {
  if (language === 'en') return NONE;
  let found = loaded.get(language);
  if (!found) loaded.set(language, (found = FILES[language]().then((file) => file.default)));
  return found;
}

/** Languages by their own names. */
export const LANGUAGE_NAMES: Record<Language, string> = {
  en: 'English',
  de: 'Deutsch',
  es: 'Español',
  fr: 'Français',
  it: 'Italiano',
};

/** How notes are called where a language is at home (common practice, no source). */
export const namingIn = (language: Language): Naming =>
  (({ en: 'letters', de: 'german', es: 'spanish', fr: 'french', it: 'italian' }) as const)[language];

/** What a browser remembers of it. */
export const LANGUAGE_COOKIE = 'wendel-language';
export const NAMING_COOKIE = 'wendel-notes';
export const MOVABLE_DO_COOKIE = 'wendel-movable-do';
