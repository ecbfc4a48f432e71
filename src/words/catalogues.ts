import type { Catalogue, Language } from '../core/format/say';

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
