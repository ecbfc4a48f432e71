import type { Metadata } from 'next';
import { cookies, headers } from 'next/headers';
import { type Language, LANGUAGES, sayIn } from '../core/format/say';
import { type Naming, NAMINGS } from '../core/music/naming';
import type { Said } from '../core/words/said';
import { catalogueOf, LANGUAGE_COOKIE, NAMING_COOKIE, namingIn } from '../words/catalogues';

const isOne = <T extends string>(all: readonly T[], value: string | undefined): value is T => all.includes(value as T);

/** Of what a browser asks for, in its own order ("de-AT,de;q=0.9,en;q=0.5"), the first language there is; English without one. */
export function languageAsked(accepted: string | null): Language {
  const asked = (accepted ?? '')
    .split(',')
    .map((part, i) => {
      const [tag, ...more] = part.trim().toLowerCase().split(';');
      const q = /^\s*q=([\d.]+)$/.exec(more.join(';'))?.[1];
      return { language: tag.split('-')[0], q: q === undefined ? 1 : Number(q), i };
    })
    .sort((a, b) => b.q - a.q || a.i - b.i);
  return (asked.map((a) => a.language).find((tag) => isOne(LANGUAGES, tag)) as Language) ?? 'en';
}

/** In which language, and by which names of notes, the reader of this answer is spoken to: as was chosen in this browser, else as it asks. */
export async function spokenHere(): Promise<{ language: Language; naming: Naming }> {
  const [jar, head] = await Promise.all([cookies(), headers()]);
  const chosen = jar.get(LANGUAGE_COOKIE)?.value;
  const language = isOne(LANGUAGES, chosen) ? chosen : languageAsked(head.get('accept-language'));
  const notes = jar.get(NAMING_COOKIE)?.value;
  return { language, naming: isOne(NAMINGS, notes) ? notes : namingIn(language) };
}

/** What is said, to the reader of this answer. */
export async function sayHere(what: Said): Promise<string> {
  const { language, naming } = await spokenHere();
  return sayIn({ language, naming, catalogue: await catalogueOf(language) }, what);
}

/** A page's title in the reader's language. @example export const generateMetadata = () => titled(texts('Studio')); */
export const titled = async (title: string): Promise<Metadata> => ({ title: await sayHere(title) });
